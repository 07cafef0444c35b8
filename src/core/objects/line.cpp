#include "core/objects/line.h"

namespace erdwerk::objects {

std::string_view styleName(LineStyle style) {
    switch (style) {
        case LineStyle::Crest:
            return "crest";
        case LineStyle::Toe:
            return "toe";
        case LineStyle::Plain:
            break;
    }
    return "plain";
}

void Kind<Line>::references(const Line& object, const Visit& visit) {
    for (const auto& v : object.line.vertices) linework::references(v.rule, visit);
}

std::optional<Line> Kind<Line>::without(Line object, ObjectId) {
    // A rule whose surface or line is gone is kept; the checks say so and offer fixes.
    return object;
}

}  // namespace erdwerk::objects
