#pragma once
// Title blocks: an SVG whose texts hold fields in braces, "{title}". The fields that Erdwerk fills are in
// computedFields(); every other name is typed for each sheet.
//
// A text with data-width (user units) is made smaller until it is no wider; with data-lines as well it is
// first broken into so many lines.

#include <functional>
#include <map>
#include <string>
#include <string_view>
#include <vector>

#include "core/base/result.h"

namespace erdwerk::paper {

/// sheet, number, of, scale, unit, name.
const std::vector<std::string>& computedFields();

struct TitleBlock {
    double width = 0;  ///< millimetres
    double height = 0;
    std::vector<std::string> fields;    ///< each once, in their order
    std::vector<std::string> families;  ///< of fonts that its texts ask for, each once
};
/// BadInput when it is no SVG, has no size, a brace that is not closed, or a field whose name is not letters
/// and digits; the error has the line where there is one.
Result<TitleBlock> readTitleBlock(std::string_view svg);

/// How wide a text is at a size, in the units of the size.
using MeasureText = std::function<double(const std::string& text, double size, bool strong)>;

/// A text of a title block, for whoever writes texts as texts: places and sizes in millimetres from its upper
/// left corner.
struct BlockText {
    std::string text;
    double x = 0;  ///< of its beginning, middle or end, as `anchor` says
    double y = 0;  ///< of its base line
    double size = 3;
    std::string family;
    std::string fill = "black";
    std::string anchor = "start";  ///< start, middle or end
    bool strong = false;
};
struct FilledBlock {
    std::string svg;               ///< without the texts below
    std::vector<BlockText> texts;  ///< but those that are turned or of several styles, which stay in the SVG
};
/// With its fields filled; one without a value is left empty. Requires what readTitleBlock takes.
FilledBlock filledTitleBlock(std::string_view svg, const std::map<std::string, std::string>& values,
                             const MeasureText& measure);

/// The one that ships: 96 by 42 mm.
std::string_view shippedTitleBlock();

}  // namespace erdwerk::paper
