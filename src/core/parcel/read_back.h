#pragma once
// Reads the text of a description, ours or another's wording, into the courses it calls; what belongs to a
// call and cannot be read is given as such, never guessed.

#include <optional>
#include <string>
#include <vector>

#include "core/base/result.h"
#include "core/parcel/parcel.h"

namespace erdwerk::parcel {

/// Words of the text: code points from 0, `to` excluded.
struct TextRange {
    std::size_t from = 0;
    std::size_t to = 0;
    friend bool operator==(const TextRange&, const TextRange&) = default;
};

/// Units of length that descriptions use; a chain is 66 ft.
enum class CalledUnit { Metre, Foot, SurveyFoot, Chain };
/// "m", "ft", "ftUS", "chain".
std::string_view unitName(CalledUnit unit);
std::optional<CalledUnit> calledUnitFrom(std::string_view name);
/// Exact: a chain is 66 international feet.
double metresPer(CalledUnit unit);

/// A figure as it is called: its value (project units or radians), half of its last called digit, its words.
struct CalledFigure {
    double value = 0;
    double half = 0;
    TextRange words;
};

struct CalledCourse {
    bool isCurve = false;
    std::optional<CalledFigure> azimuth;   ///< of a straight, or of the chord
    std::optional<CalledFigure> distance;  ///< of a straight, or the chord
    std::optional<CalledFigure> radius;
    std::optional<CalledFigure> delta;
    std::optional<CalledFigure> arcLength;
    std::optional<bool> right;
    std::optional<bool> tangent;  ///< as called; nothing where it is not said
    std::optional<TextRange> sideWords;
    std::optional<TextRange> tangentWords;
    TextRange words;
};

struct ReadDescription {
    CalledUnit unit = CalledUnit::Metre;
    std::vector<CalledCourse> courses;
    std::optional<CalledFigure> area;  ///< called, in squares of `areaUnit`
    std::string areaUnit;              ///< "m2", "ha", "ft2", "acre"
    std::vector<TextRange> unread;
};

/// Quadrant bearings (signs, words, or dashes between degrees, minutes and seconds), "due North", azimuths in
/// degrees or gon; metres, feet, chains and links; calls after "thence", numbered, or between semicolons;
/// curves with radius, central angle, arc, chord, "said curve", the side by left and right or by which way it
/// is concave. What leads from a point of commencement to the point of beginning is no course. BadInput when
/// nothing in it is a call. `unit`: of lengths without a unit.
Result<ReadDescription> readDescription(const std::string& text, CalledUnit unit);

/// The figure that is called: each course from where the one before ends, from `begin`, in called units times
/// `factor`; `north`: the azimuth in the plan of called north. A curve lies on its chord when that is called,
/// else on its radius, angle and side from the direction before.
Path figureOf(const ReadDescription& read, Vec2 begin, Angle north, double factor);

/// What a text and the computed figures, or a parcel, do not agree on.
struct TextDifference {
    std::size_t course = 0;  ///< from 1, in the order of the text; of a missing one its number in the parcel
    std::string what;        ///< "missing", "extra", "bearing", "distance", "radius", "delta", "arcLength", "chord",
                             ///< "side", "tangent", "area"
    std::optional<double> called;
    std::optional<double> computed;  ///< degrees for angles
    TextRange words;
};

/// Contradictions within the text: arc against radius and angle, chord against both, tangent though the
/// directions differ (or not tangent though they do not), the area against the figure.
std::vector<TextDifference> contradictions(const ReadDescription& read);

/// Against a parcel (courses in the text's unit) whose beginning and direction are found by themselves: those
/// with the fewest differences. A figure agrees within half of its last called digit.
std::vector<TextDifference> compared(const ReadDescription& read, const std::vector<Course>& parcel,
                                     double area);

}  // namespace erdwerk::parcel
