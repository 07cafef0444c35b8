#pragma once
// Changing a design with grades that are locked and stretches that lie on the ground.

#include "core/route/design.h"

namespace erdwerk::route {

/// Puts a PVI elsewhere. With one of its grades locked it slides along that grade (its height follows from
/// the station); with both its station stays, and all that hangs on it by locked grades rises with it. Not
/// below or beyond its neighbours: those are up to the caller.
void movePvi(std::vector<Pvi>& design, std::size_t pvi, double station, double height);
/// Raises a PVI, and what hangs on it by locked grades.
void raisePvi(std::vector<Pvi>& design, std::size_t pvi, double rise);
/// Raises the straight from a PVI to the next, and what hangs on both by locked grades.
void raiseStretch(std::vector<Pvi>& design, std::size_t pvi, double rise);
/// Puts a PVI where a grade from the one before meets a grade into the one behind: with h, s the neighbours'
/// heights and stations and g the grades, s = (h2 - g2 s2 - h1 + g1 s1) / (g1 - g2). BadInput where they meet
/// at no place between the neighbours, and for an end.
Result<void> tangentsMeet(std::vector<Pvi>& design, std::size_t pvi, Grade in, Grade out);
/// The next PVI comes to lie on the grade that leads into this one. BadInput at the ends.
Result<void> carryGradeOn(std::vector<Pvi>& design, std::size_t pvi);

/// The design with the stretches that follow the ground made of straights from place to place of it (thinned
/// within 1 mm of height, without curves), their ends on it too. Where the ground is not known such a stretch
/// stays straight.
std::vector<Pvi> laidOnGround(const std::vector<Pvi>& design, const std::vector<ProfilePoint>& ground);
bool followsGround(const std::vector<Pvi>& design);

}  // namespace erdwerk::route
