#pragma once
// Quillmoor Observatory, made up: a terrain as a formula, and a survey of it. The same seed gives the same
// data.

#include <cstdint>
#include <string>
#include <vector>

#include "core/linework/line3d.h"
#include "core/route/profile.h"
#include "core/survey/points.h"
#include "core/terrain/build.h"

namespace erdwerk::demo {

inline constexpr double originEast = 48000;
inline constexpr double originNorth = 91000;
inline constexpr double siteWidth = 240;
inline constexpr double siteDepth = 200;

/// True height of the ground, metres.
double groundHeight(geometry::Vec2 place);
/// Crest and toe of North Knoll, `count` places round the rock.
std::vector<geometry::Vec3> knollCrest(int count);
std::vector<geometry::Vec3> knollToe(int count);

struct NamedLine {
    std::string name;
    linework::Line3D line;
};

/// A drawing without heights, as it comes from others: lines, leaders, and texts some of which are heights.
struct FlatDrawing {
    std::vector<NamedLine> kerbs;
    std::vector<NamedLine> leaders;
    std::vector<std::pair<std::string, geometry::Vec2>> texts;
};
/// The turning place north of Starling Lane: its kerb, an island, a splitter, seven heights at leaders, two
/// beside the kerb, three texts without a number. One corner of the kerb has no text.
FlatDrawing turningPlace(const linework::Line3D& lane);

/// The edge of Dome Terrace: one fixed corner, falls of 1 % away from it, back corner interpolated.
linework::Line3D domeTerrace();
/// The design of Starling Lane, by running stations.
std::vector<route::Pvi> laneDesign();
/// Both edges of Starling Lane as one closed line: on the ground at its ends, at the heights of `design` (by
/// station, rising) between them, arcs kept.
linework::Line3D laneFormation(const linework::Line3D& lane, const std::vector<route::Pvi>& design,
                               ObjectId ground);
/// The floor of the pond below the peat ditch, level.
linework::Line3D pondFloor();
/// A line round it, on higher ground, without heights.
linework::Line3D pondRim();

struct Site {
    std::vector<survey::SurveyPoint> points;
    std::vector<NamedLine> breaklines;  ///< crest, toe, ditch, wall, lane edges, footpath
    NamedLine lane;  ///< centre line of Starling Lane: straights and curves, one joint not tangent
    NamedLine plot;  ///< Plot Q-4, straight and curved courses
    NamedLine rim;   ///< outer boundary of the survey, without heights
};

/// About 600 coded points with the deliberate faults: two crossing breaklines, a point without height, a
/// doubled point and a joint that is not tangent.
Site survey(std::uint32_t seed);

/// `count` points spread evenly over the site, with centimetre noise; and `segments` breakline sides
/// following the ground in smooth lines that do not cross.
terrain::BuildInput largeInput(std::size_t count, std::size_t segments, std::uint32_t seed);

}  // namespace erdwerk::demo
