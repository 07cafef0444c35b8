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

bool sameFollows(const Line& a, const Line& b) {
    return a.follows == b.follows || (a.follows && b.follows && *a.follows == *b.follows);
}

const FigureOf* figureOf(const Line& line) {
    return line.follows ? std::get_if<FigureOf>(line.follows.get()) : nullptr;
}

void Kind<Line>::references(const Line& object, const Visit& visit) {
    for (const auto& v : object.line.vertices) linework::references(v.rule, visit);
    if (!object.follows) return;
    if (const auto* row = std::get_if<RowOf>(object.follows.get())) {
        visit(row->line);
        if (row->row.height.by == linework::RowHeight::By::Surface) visit(row->surface);
    } else if (const auto* meeting = std::get_if<MeetingOf>(object.follows.get())) {
        visit(meeting->first);
        visit(meeting->second);
    } else if (const auto* figure = std::get_if<FigureOf>(object.follows.get())) {
        for (const ObjectId line : figure->lines) visit(line);
    } else {
        visit(std::get<DesignOf>(*object.follows).profile);
    }
}

std::optional<Line> Kind<Line>::without(Line object, ObjectId) {
    // A rule whose surface or line is gone is kept; the checks say so and offer fixes.
    return object;
}

}  // namespace erdwerk::objects
