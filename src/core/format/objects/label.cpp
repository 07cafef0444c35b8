#include "core/objects/label.h"
#include "core/format/objects/label_style.h"

namespace erdwerk::format {

using namespace objects;

template <>
json Json<Label>::write(const Label& p, const JsonContext<Label>&) {
    json out{{"target", p.target.value}, {"part", p.part}, {"style", p.style.value}};
    if (p.on != Label::On::Side) out["on"] = labelOnName(p.on);
    if (p.on == Label::On::Place) out["at"] = place(p.at);
    if (p.moved) out["moved"] = place(*p.moved);
    if (p.own) out["own"] = styleJson(*p.own);
    if (!p.words.empty()) out["words"] = p.words;
    return out;
}

template <>
Label Json<Label>::read(const json& j, const JsonContext<Label>&) {
    Label out{idFrom(j, "target"), whole(j.at("part")), idFrom(j, "style")};
    if (j.contains("on"))
        out.on = fromName(word(j.at("on")),
                          std::vector{Label::On::Side, Label::On::Vertex, Label::On::Whole, Label::On::Place},
                          labelOnName);
    if (out.on == Label::On::Place) out.at = place(j.at("at"));
    if (j.contains("moved")) out.moved = place(j.at("moved"));
    if (j.contains("own")) out.own = styleFromJson(j.at("own"));
    if (j.contains("words")) out.words = word(j.at("words"));
    return out;
}

}  // namespace erdwerk::format
