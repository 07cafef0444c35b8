#pragma once
// Batters as they are typed, and the edges they run from.

#include <string>

#include "core/earthwork/batter.h"

namespace erdwerk::earthwork {

/// "2:1", "1 in 2", "50%": rise over run, without sign. BadInput for others and for what is not above 0.
Result<double> parseSlope(const std::string& text);

/// "103,2": at height 103, 2 wide; "+3,2" or "-3,2": that much above or below the edge.
Result<Berm> parseBerm(const std::string& text);
std::string bermText(const Berm& berm);

/// A batter as it was typed: what saved kinds and the objects of a project hold. Its side is left to them.
struct BatterForm {
    std::string cut = "2:1";  ///< empty: none
    std::string fill = "2:1";
    std::vector<Berm> berms;
    BatterTarget target;
    linework::OutsideCorner corners = linework::OutsideCorner::Mitre;
    std::vector<SlopeChange> changes = {};
    friend bool operator==(const BatterForm&, const BatterForm&) = default;
};
enum class SlopeOf { Cut, Fill, Both };
/// A slope as it is typed. To a distance there is one: giving cut takes fill away and the other way round,
/// both is that which there is, and one may be emptied while the other holds. BadInput for what is no slope,
/// and for taking one away that is needed.
Result<void> setSlope(BatterForm& form, SlopeOf which, const std::string& text);
/// Where it runs. To a distance with slopes for both ways one goes: cut, or with `rises` fill; to anything
/// else a slope that is missing is that of the other way.
void setTarget(BatterForm& form, const BatterTarget& target, bool rises = false);
/// BadInput for slopes that cannot be read and what validate refuses.
Result<BatterShape> shapeOf(const BatterForm& form, bool right);

/// "surface", "to 103.5", "rise -3", "distance 4".
Result<BatterTarget> parseTarget(const std::string& text);
std::string targetText(const BatterTarget& target);
/// "103,2; 106,1.5"; empty: none.
Result<std::vector<Berm>> parseBerms(const std::string& text);
std::string bermsText(const std::vector<Berm>& berms);

/// A line as an edge, arcs and vertical curves cut within 0.001. BadInput, with the place, for a line with
/// points that have no height.
Result<Edge> edgeOf(const linework::ResolvedLine& line);
/// The same shape in plan, all of it at one height.
Result<Edge> levelEdgeOf(const linework::Line3D& line, double height);
/// A stretch of an edge; round a closed one when `to` lies before `from`. BadInput when nothing is left.
Result<Edge> stretchOf(const Edge& edge, double from, double to);

}  // namespace erdwerk::earthwork
