#pragma once
// A line of a label's style as it is typed: text, with fields in braces.
//
//   N {northing:3}  E {easting:3}      {direction:0 minutes}      R {radius} m      {distance:2 bare}
//
// What stands before a field is its prefix, what stands behind it up to two spaces its suffix. After the
// colon: decimals (2 without them), then words: "bare" for no leading zeros, "minutes" or "degrees" for how
// far an angle is written out.

#include "core/annotate/label_style.h"

namespace erdwerk::annotate {

std::string styleLineText(const StyleLine& line);
/// The fields of a line; its stand, place along and gap are left as they are in `before`. BadInput names what
/// cannot be read, and the fields there are.
Result<StyleLine> parseStyleLine(const std::string& text, LabelKind kind, const StyleLine& before);

}  // namespace erdwerk::annotate
