#pragma once
// Batters, pads and ponds, as edits.

#include "core/document/finished.h"
#include "core/objects/earthwork.h"
#include "core/operations/lines.h"

namespace erdwerk::operations {

/// A new one, named after its edge, in the edge's group. It becomes part of the finished surface of its
/// ground, which is made when there is none ("GROUND finished") and then shown in place of the ground.
/// BadInput for an edge that is no line, an open edge of a pad or pond, and slopes that cannot be.
Edit addEarthwork(objects::Earthwork made);
using document::finishedOf;
/// Surfaces that earthworks can stand on: those that have none in them.
std::vector<ObjectId> possibleGrounds(const Document& document);
/// Of them the topmost under the middle of a line's first side; none when it lies on none.
ObjectId groundUnder(const Derived& seen, ObjectId line);

// Settings, as they are typed. BadInput when they cannot be read or do not go together.
using earthwork::SlopeOf;
Edit setTypedSlope(ObjectId earthwork, SlopeOf which, const std::string& text);
Edit setTypedBerms(ObjectId earthwork, const std::string& text);
Edit setTypedTarget(ObjectId earthwork, const std::string& text);
/// "20 to 60"; "all" or nothing: all of the edge.
Edit setTypedStretch(ObjectId earthwork, const std::string& text);
Result<std::optional<objects::EarthworkStretch>> parseStretch(const std::string& text);
/// "from 20 to 40: 1:1, 3:1" (cut, fill), several with semicolons; nothing takes them away.
Edit setTypedChanges(ObjectId earthwork, const std::string& text);
std::string changesText(const std::vector<earthwork::SlopeChange>& changes);
/// Any other change of it.
Edit changeEarthwork(ObjectId earthwork, std::function<Result<void>(objects::Earthwork&)> change);

/// Keeps a form by name; one of that name is replaced.
Edit saveBatterKind(const std::string& name, const earthwork::BatterForm& form);
/// Takes the slopes, berms, target and corners of a kind over.
Edit takeBatterKind(ObjectId earthwork, ObjectId kind);

/// The lift of a pad's or pond's edge at which so much loose earth is left over.
Result<earthwork::Balanced> balanceOf(const Derived& seen, ObjectId earthwork, double surplus,
                                      const Context& context = {});
/// Cut, fill and net about the present height, from so much below to so much above; by height of the edge's
/// first corner in `lift`.
Result<std::vector<earthwork::BalancePoint>> balanceCurve(const Derived& seen, ObjectId earthwork,
                                                          double reach, const Context& context = {});
/// Lifts the edge so, rules kept.
document::LongEdit balanceEarthwork(const Results& seen, ObjectId earthwork, double surplus);

}  // namespace erdwerk::operations
