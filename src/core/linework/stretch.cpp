#include "core/linework/stretch.h"

#include "core/linework/pieces.h"

namespace erdwerk::linework {

Result<Line3D> withStretch(const Line3D& line, double from, double to,
                           const std::vector<StretchPoint>& points) {
    const auto where = placed(line);
    if (!(from >= -cutsMeet) || !(to <= where.length + cutsMeet) || !(to - from > cutsMeet))
        return badInput("the stretch has no length, or is not on the line");
    Line3D out = line;
    for (std::size_t i = line.vertices.size(); i-- > 0;) {
        const double d = where.vertices[i].distance;
        if (d < from - cutsMeet || d > to + cutsMeet) continue;
        auto& v = out.vertices[i];
        if (!v.isCorner) {
            out.vertices.erase(out.vertices.begin() + static_cast<std::ptrdiff_t>(i));
        } else if (d > from + cutsMeet && d < to - cutsMeet) {
            v.rule = Interpolated{};
            v.curve.reset();
        }
    }
    for (const auto& point : points) {
        auto& v = out.vertices[controlAt(out, point.distance)];
        v.rule = point.rule;
        v.curve.reset();
    }
    if (auto problem = validate(out)) return badInput(std::move(*problem));
    return out;
}

Result<Line3D> levelStretch(const Line3D& line, double from, double to, double height) {
    if (from > to) std::swap(from, to);
    return withStretch(line, from, to, {{from, FixedHeight{height}}, {to, FixedHeight{height}}});
}

}  // namespace erdwerk::linework
