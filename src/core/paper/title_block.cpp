#include "core/paper/title_block.h"

#include <algorithm>
#include <cctype>
#include <pugixml.hpp>
#include <sstream>

#include "core/base/notation.h"

namespace erdwerk::paper {

namespace {

long lineOf(std::string_view text, std::ptrdiff_t offset) {
    const auto last = std::clamp<std::ptrdiff_t>(offset, 0, static_cast<std::ptrdiff_t>(text.size()));
    return 1 + static_cast<long>(std::count(text.begin(), text.begin() + last, '\n'));
}

/// "96mm", "9.6cm", "4in", "300pt", "300px" and plain figures (pixels of 96 an inch) in millimetres.
std::optional<double> millimetres(std::string_view text) {
    std::size_t end = 0;
    while (end < text.size() &&
           (std::isdigit(static_cast<unsigned char>(text[end])) != 0 || text[end] == '.'))
        ++end;
    const auto value = parseNumber(std::string(text.substr(0, end)));
    if (!value || !(*value > 0)) return std::nullopt;
    const std::string_view unit = text.substr(end);
    if (unit == "mm") return *value;
    if (unit == "cm") return *value * 10;
    if (unit == "in") return *value * 25.4;
    if (unit == "pt") return *value * 25.4 / 72;
    if (unit.empty() || unit == "px") return *value * 25.4 / 96;
    return std::nullopt;
}

void addOnce(std::vector<std::string>& list, const std::string& word) {
    if (!word.empty() && std::find(list.begin(), list.end(), word) == list.end()) list.push_back(word);
}

/// Calls for each piece of a text: what it is and whether it is a field's name.
template <class Piece>
Result<void> pieces(const std::string& text, const Piece& piece) {
    std::size_t at = 0;
    while (at < text.size()) {
        const std::size_t open = text.find('{', at);
        piece(text.substr(at, open == std::string::npos ? open : open - at), false);
        if (open == std::string::npos) return {};
        const std::size_t close = text.find('}', open);
        const std::string name = close == std::string::npos ? "" : text.substr(open + 1, close - open - 1);
        if (name.empty() || !std::all_of(name.begin(), name.end(),
                                         [](unsigned char c) { return std::isalnum(c) != 0 || c == '_'; }))
            return badInput("'" + text.substr(open, 24) +
                            "' is no field: write {name} in letters and digits");
        piece(name, true);
        at = close + 1;
    }
    return {};
}

std::string filledText(const std::string& text, const std::map<std::string, std::string>& values) {
    std::string out;
    (void)pieces(text, [&](const std::string& piece, bool field) {
        if (!field) {
            out += piece;
        } else if (const auto it = values.find(piece); it != values.end()) {
            out += it->second;
        }
    });
    return out;
}

/// An attribute of an element or the nearest one round it.
std::string inherited(pugi::xml_node node, const char* name) {
    for (; node; node = node.parent())
        if (const auto a = node.attribute(name)) return a.value();
    return {};
}

bool strong(pugi::xml_node node) {
    const std::string weight = inherited(node, "font-weight");
    return weight == "bold" || weight == "600" || weight == "700" || weight == "800";
}

/// The first of a list of families.
std::string firstFamily(const std::string& families) {
    std::string first = families.substr(0, families.find(','));
    first.erase(std::remove_if(first.begin(), first.end(), [](char c) { return c == '\'' || c == '"'; }),
                first.end());
    return std::string(trimmed(first));
}

void gather(pugi::xml_node node, TitleBlock& out, Result<void>& problem, std::string_view svg) {
    if (node.type() == pugi::node_pcdata) {
        if (auto read = pieces(node.value(),
                               [&](const std::string& piece, bool field) {
                                   if (field) addOnce(out.fields, piece);
                               });
            !read && problem) {
            Error error = read.error();
            error.line = lineOf(svg, node.offset_debug());
            problem = tl::unexpected(error);
        }
    }
    if (const auto family = node.attribute("font-family")) addOnce(out.families, firstFamily(family.value()));
    for (const pugi::xml_node child : node.children()) gather(child, out, problem, svg);
}

/// Broken at spaces into as many lines as it takes, none wider where a word allows it.
std::vector<std::string> broken(const std::string& text, double width, double size, bool bold,
                                const MeasureText& measure) {
    std::vector<std::string> lines;
    std::istringstream words(text);
    for (std::string word; words >> word;) {
        if (!lines.empty() && measure(lines.back() + " " + word, size, bold) <= width)
            lines.back() += " " + word;
        else
            lines.push_back(word);
    }
    return lines;
}

void fit(pugi::xml_node text, const MeasureText& measure) {
    const double width = text.attribute("data-width").as_double();
    if (!(width > 0)) return;
    const std::size_t most = std::max(1U, text.attribute("data-lines").as_uint(1));
    const bool bold = strong(text);
    const std::string words = text.text().get();
    double size = parseNumber(inherited(text, "font-size")).value_or(3);
    std::vector<std::string> lines{words};
    const auto fits = [&] {
        lines = most > 1 ? broken(words, width, size, bold, measure) : std::vector{words};
        return lines.size() <= most && std::all_of(lines.begin(), lines.end(), [&](const std::string& line) {
                   return measure(line, size, bold) <= width;
               });
    };
    // Down to a size that nobody reads any more.
    while (!fits() && size > 0.5) size *= 0.95;
    text.remove_attribute("font-size");
    text.append_attribute("font-size").set_value(size);
    if (lines.size() < 2) return;
    // Texts of several lines are several texts: the reader of the picture knows no others.
    double y = text.attribute("y").as_double();
    pugi::xml_node before = text;
    for (std::size_t i = 0; i < lines.size(); ++i) {
        pugi::xml_node line = i == 0 ? text : text.parent().insert_copy_after(text, before);
        line.text().set(lines[i].c_str());
        line.attribute("y").set_value(y);
        y += size * 1.2;
        before = line;
    }
}

void fill(pugi::xml_node node, const std::map<std::string, std::string>& values, const MeasureText& measure) {
    for (pugi::xml_node child = node.first_child(); child;) {
        const pugi::xml_node next = child.next_sibling();
        if (child.type() == pugi::node_pcdata) {
            child.set_value(filledText(child.value(), values).c_str());
        } else {
            fill(child, values, measure);
            if (std::string_view(child.name()) == "text") fit(child, measure);
        }
        child = next;
    }
}

/// A text of one style that nothing turns or moves.
bool isPlain(pugi::xml_node text) {
    for (const pugi::xml_node child : text.children())
        if (child.type() == pugi::node_element) return false;
    return inherited(text, "transform").empty();
}

/// Takes the plain texts out.
class TextTaker {
public:
    explicit TextTaker(pugi::xml_node root) {
        const double width = millimetres(root.attribute("width").value()).value_or(1);
        const double height = millimetres(root.attribute("height").value()).value_or(1);
        std::istringstream box(root.attribute("viewBox").value());
        double w = 0;
        double h = 0;
        if (box >> left_ >> top_ >> w >> h && w > 0 && h > 0) {
            across_ = width / w;
            down_ = height / h;
        } else {
            left_ = top_ = 0;
            across_ = down_ = 25.4 / 96;
        }
    }
    void take(pugi::xml_node node, std::vector<BlockText>& out) const {
        for (pugi::xml_node child = node.first_child(); child;) {
            const pugi::xml_node next = child.next_sibling();
            if (std::string_view(child.name()) != "text") {
                take(child, out);
            } else if (isPlain(child)) {
                out.push_back(textOf(child));
                node.remove_child(child);
            }
            child = next;
        }
    }

private:
    [[nodiscard]] BlockText textOf(pugi::xml_node node) const {
        BlockText out;
        out.text = std::string(trimmed(node.text().get()));
        out.x = (node.attribute("x").as_double() - left_) * across_;
        out.y = (node.attribute("y").as_double() - top_) * down_;
        out.size = parseNumber(inherited(node, "font-size")).value_or(3) * down_;
        out.family = firstFamily(inherited(node, "font-family"));
        if (const std::string fill = inherited(node, "fill"); !fill.empty()) out.fill = fill;
        if (const std::string anchor = inherited(node, "text-anchor"); !anchor.empty()) out.anchor = anchor;
        out.strong = strong(node);
        return out;
    }
    double left_ = 0;
    double top_ = 0;
    double across_ = 1;
    double down_ = 1;
};

}  // namespace

const std::vector<std::string>& computedFields() {
    static const std::vector<std::string> all{"sheet", "number", "of", "scale", "unit", "name"};
    return all;
}

Result<TitleBlock> readTitleBlock(std::string_view svg) {
    pugi::xml_document xml;
    const auto parsed = xml.load_buffer(svg.data(), svg.size());
    if (!parsed)
        return tl::unexpected(Error{ErrorCode::BadInput,
                                    std::string("is no SVG: ") + parsed.description(),
                                    {},
                                    lineOf(svg, parsed.offset)});
    const pugi::xml_node root = xml.document_element();
    if (std::string_view(root.name()) != "svg") return badInput("is no SVG: its root is no svg element");
    TitleBlock out;
    const auto width = millimetres(root.attribute("width").value());
    const auto height = millimetres(root.attribute("height").value());
    if (!width || !height) return badInput("the SVG does not say its width and height, as width=\"96mm\"");
    if (*width > 5000 || *height > 5000) return badInput("the SVG is larger than 5 m");
    out.width = *width;
    out.height = *height;
    Result<void> problem;
    gather(root, out, problem, svg);
    if (!problem) return tl::unexpected(problem.error());
    return out;
}

FilledBlock filledTitleBlock(std::string_view svg, const std::map<std::string, std::string>& values,
                             const MeasureText& measure) {
    pugi::xml_document xml;
    // Blanks between a field and a word count.
    xml.load_buffer(svg.data(), svg.size(), pugi::parse_default | pugi::parse_ws_pcdata_single);
    fill(xml.document_element(), values, measure);
    FilledBlock out;
    TextTaker(xml.document_element()).take(xml.document_element(), out.texts);
    std::ostringstream rest;
    xml.save(rest, "", pugi::format_raw);
    out.svg = rest.str();
    return out;
}

std::string_view shippedTitleBlock() {
    return R"(<svg xmlns="http://www.w3.org/2000/svg" width="96mm" height="42mm" viewBox="0 0 96 42" font-family="Inter">
  <rect x="0.25" y="0.25" width="95.5" height="41.5" fill="none" stroke="#22303A" stroke-width="0.5"/>
  <path d="M0 20.5H96M0 31.2H96M48 20.5V42M72 31.2V42" fill="none" stroke="#22303A" stroke-width="0.18"/>
  <g fill="#6B7780" font-size="2.1">
    <text x="3" y="24">Drawn by</text>
    <text x="51" y="24">Date</text>
    <text x="3" y="34.7">Scale</text>
    <text x="51" y="34.7">Sheet</text>
    <text x="75" y="34.7">Status</text>
  </g>
  <text x="3" y="5.8" font-size="3" fill="#6B7780" data-width="90">{project}</text>
  <g fill="#22303A">
    <text x="3" y="12" font-size="5" font-weight="bold" data-width="90" data-lines="2">{title}</text>
    <text x="3" y="28.6" font-size="3" data-width="42">{drawnBy}</text>
    <text x="51" y="28.6" font-size="3" data-width="42">{date}</text>
    <text x="3" y="39.3" font-size="3" data-width="42">{scale}</text>
    <text x="51" y="39.3" font-size="3.4" font-weight="bold" data-width="19">{number} / {of}</text>
    <text x="75" y="39.3" font-size="3" data-width="19">{status}</text>
  </g>
</svg>
)";
}

}  // namespace erdwerk::paper
