#pragma once
// A legal description that writes itself from geometry, in the wording of a template.

#include <array>
#include <optional>
#include <span>
#include <string>
#include <vector>

#include "core/base/result.h"
#include "core/parcel/parcel.h"

namespace erdwerk::parcel {

/// A sentence for each kind of part, with fields in braces: {distance}, {distance:3}, {distance:2 ft},
/// {direction:words}, {delta:0 zeros}. Behind the colon in any order: decimals (of seconds for angles), a
/// unit of length to write it in (m, ft, ftUS), `zeros` (leading zeros), `words` (45 degrees 30 minutes 20
/// seconds). A field without decimals has as many as it takes to close.
///
/// | sentence | fields |
/// |---|---|
/// | opening | name |
/// | commence (in place of beginning, with a tie) | from, tie, beginning, position, easting, northing |
/// | beginning | beginning, position, easting, northing |
/// | line | direction, bearing, azimuth, distance, along, to |
/// | curveTangent, curveNonTangent | side, radius, delta, arcLength, chord, chordDirection, chordBearing,
///   chordAzimuth, along, to |
/// | along, leaving, to | along; leaving (along is the same); to |
/// | listOpening (empty: running text) | count, countWords |
/// | closing | beginning |
/// | area | area |
///
/// A line or curve without {along} or {to} has those sentences before and behind it; a commence without
/// {tie} is followed by the tie and the beginning.
struct DescriptionTemplate {
    std::string name;
    std::string opening;
    std::string commence;
    std::string beginning;
    std::string line;
    std::string curveTangent;
    std::string curveNonTangent;
    std::string along;
    std::string leaving;
    std::string to;
    std::string listOpening;
    std::string closing;
    std::string area;
    friend bool operator==(const DescriptionTemplate&, const DescriptionTemplate&) = default;
};

/// A sentence by its key.
struct SentenceKey {
    std::string_view key;
    std::string DescriptionTemplate::*sentence;
    std::string_view fields;  ///< divided by spaces
};
std::span<const SentenceKey> sentenceKeys();
/// BadInput naming the sentence and the field that it does not have, or a brace without its other.
Result<void> validate(const DescriptionTemplate& wording);

/// Plain and numbered list, each in metres and in feet, with as many decimals as it takes to close.
std::span<const DescriptionTemplate> shippedTemplates();

/// What a course runs along, and the thing it runs to; empty where there is nothing to say.
struct SideNames {
    std::string along;
    std::string to;
    friend bool operator==(const SideNames&, const SideNames&) = default;
};

/// The way from the point of commencement to the point of beginning.
struct Tie {
    std::string from;  ///< the name of the point of commencement
    std::vector<Course> courses;
};

/// How an area is written: "m2", "ha", "ft2", "acre".
std::optional<std::string> areaWords(double squareUnits, LengthUnit unit, std::string_view areaUnit);

struct DescriptionOrder {
    std::string name;       ///< of the parcel
    std::string beginning;  ///< name of the point of beginning; empty: only its coordinates are told
    DisplaySettings display;
    std::vector<SideNames> names;  ///< of each course; may be shorter
    std::optional<Tie> tie;
    std::vector<std::string>
        areaUnits;              ///< the first, then the others in brackets; empty: as usual for the unit
    double closeWithin = 0.01;  ///< project units, for fields without decimals
};

/// A part of the text that can be told apart: what is changed by hand is changed in one of them.
struct DescriptionPart {
    enum class Kind { Opening, Beginning, ListOpening, Course, Area, Note };
    Kind kind = Kind::Opening;
    std::size_t course = 0;  ///< of a Course: from 0
    std::string text;
};

struct Description {
    std::vector<DescriptionPart> parts;
    std::string text;
    /// Of the courses as the text calls them.
    Closure rounded;
    /// Decimals of the fields that had none.
    int lengthDecimals = 2;
    int secondDecimals = 0;
};

/// Plain, bearings to the second and lengths to 0.01 of the unit: what is written where no template is
/// chosen.
const DescriptionTemplate& plainTemplate(LengthUnit unit);

/// BadInput when the template is not valid.
Result<Description> written(const ParcelGeometry& parcel, const DescriptionTemplate& wording,
                            const DescriptionOrder& order);
/// The parts with what stands between them.
std::string wholeText(const std::vector<DescriptionPart>& parts);

/// 7 as "seven", up to 999; above that in figures.
std::string countWords(std::size_t count);

}  // namespace erdwerk::parcel
