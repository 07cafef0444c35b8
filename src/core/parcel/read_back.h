#pragma once
// Reads the text of a description, ours or another's wording, into the courses it calls; what belongs to a
// call and cannot be read is given as such, never guessed.

#include <optional>
#include <string>
#include <vector>

#include "core/base/result.h"
#include "core/geometry/path.h"
#include "core/parcel/called_figures.h"

namespace erdwerk::parcel {

struct CalledCourse {
    bool isCurve = false;
    std::optional<CalledFigure> azimuth;   ///< of a straight, or of the chord
    std::optional<CalledFigure> distance;  ///< of a straight, or the chord
    std::optional<CalledFigure> radius;
    std::optional<CalledFigure> delta;
    std::optional<CalledFigure> arcLength;
    std::optional<CalledFigure> startTangent;  ///< azimuth in which a curve leaves, where that is called
    std::optional<CalledFigure> radial;        ///< azimuth of a radial line at its start
    bool radialFromCentre = false;             ///< else to the centre
    std::optional<bool> right;
    std::optional<double> concave;  ///< azimuth to which it is called concave; the side when that is missing
    std::optional<double> heading;  ///< azimuth of "easterly" at its head, to an eighth of a turn
    std::optional<bool> tangent;    ///< as called; nothing where it is not said
    TextRange sideWords;
    TextRange tangentWords;
    TextRange words;
};

struct CalledArea {
    CalledFigure figure;  ///< in `unit`
    std::string unit;     ///< "m2", "ha", "ft2", "acre"
};
/// Square metres.
double squareMetresPer(std::string_view areaUnit);

/// Lengths are in `unit`, angles in radians.
struct ReadDescription {
    CalledUnit unit = CalledUnit::Metre;
    std::vector<CalledCourse> courses;
    std::vector<CalledArea> areas;
    std::vector<TextRange> unread;  ///< in the order of the text, none within another
};

/// Quadrant bearings (signs, words, or dashes between degrees, minutes and seconds), "due North", azimuths in
/// degrees or gon; metres, feet, chains and links; calls after "thence", numbered, or in a chain of commas;
/// curves with radius, central angle, arc, chord, "said curve", the side by left and right or by which way it
/// is concave. What leads from a point of commencement to the point of beginning is no course. BadInput when
/// nothing in it is a call. `unit`: of lengths when none of them says. Lengths in several units are given in
/// that of the first.
Result<ReadDescription> readDescription(std::string_view text, CalledUnit unit);

}  // namespace erdwerk::parcel
