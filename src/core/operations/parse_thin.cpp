#include "core/base/notation.h"
#include "core/operations/plan_shape.h"

namespace erdwerk::operations {

Result<linework::ThinLineOptions> parseThin(const std::string& text) {
    linework::ThinLineOptions out;
    std::size_t at = 0;
    const std::string words = text + " ";
    while (at < words.size()) {
        const auto end = words.find(' ', at);
        const std::string word = words.substr(at, end - at);
        at = end + 1;
        if (word.empty()) continue;
        const auto figure = [&](std::string_view of) {
            const auto value = parseNumber(of);
            return value && *value > 0 ? value : std::nullopt;
        };
        if (word.size() > 3 && word.ends_with("deg")) {
            const auto value = figure(std::string_view(word).substr(0, word.size() - 3));
            if (!value) return badInput("'" + word + "' is no angle above 0");
            out.angle = Angle::degrees(*value);
        } else if (word.front() == '<') {
            const auto value = figure(std::string_view(word).substr(1));
            if (!value) return badInput("'" + word + "' is no spacing above 0");
            out.spacing = *value;
        } else {
            const auto value = figure(word);
            if (!value)
                return badInput("'" + word +
                                "' is no deviation; write 0.02, an angle like 3deg, a spacing like <0.5");
            out.deviation = *value;
        }
    }
    if (!(out.deviation > 0) && !(out.angle.radians() > 0) && !(out.spacing > 0))
        return badInput("type a deviation like 0.02, an angle like 3deg, a spacing like <0.5");
    return out;
}

}  // namespace erdwerk::operations
