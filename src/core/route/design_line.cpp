#include "core/route/design_line.h"

#include <algorithm>
#include <cmath>

namespace erdwerk::route {

namespace {

using linework::LineVertex;

/// A straight or an arc of the line, and where it lies along the alignment.
struct Piece {
    geometry::Segment shape;
    double from = 0;
    double to = 0;
};

std::vector<Piece> piecesOf(const AlignmentGeometry& alignment, double from, double to) {
    std::vector<Piece> out;
    for (std::size_t i = 0; i < alignment.path.size(); ++i) {
        const auto& element = alignment.path[i];
        const double start = alignment.starts[i];
        const double length = lengthOf(element);
        const double a = std::max(from, start);
        const double b = std::min(to, start + length);
        if (b - a < 1e-9) continue;
        const auto whole = part(element, (a - start) / length, (b - start) / length);
        if (!whole.spiral) {
            out.push_back({whole, a, b});
            continue;
        }
        const auto chords = flattened(whole, 0.001);
        const double each = (b - a) / static_cast<double>(chords.size() - 1);
        for (std::size_t k = 0; k + 1 < chords.size(); ++k)
            out.push_back({{chords[k], chords[k + 1], {}},
                           a + each * static_cast<double>(k),
                           a + each * static_cast<double>(k + 1)});
    }
    return out;
}

LineVertex at(const Pvi& pvi) {
    LineVertex v;
    v.rule = linework::FixedHeight{pvi.height};
    if (pvi.curveLength > 0)
        v.curve = linework::VerticalCurve{linework::VerticalCurve::By::Length, pvi.curveLength};
    return v;
}

}  // namespace

Result<linework::Line3D> designLine(const AlignmentGeometry& alignment, const std::vector<Pvi>& design) {
    if (auto valid = validate(design); !valid) return tl::unexpected(valid.error());
    const double first = design.front().station - alignment.startStation;
    const double last = design.back().station - alignment.startStation;
    const double from = std::max(0.0, first);
    const double to = std::min(alignment.length, last);
    if (to - from < 1e-6) return badInput("its alignment does not reach its design");
    std::vector<Pvi> within;
    const auto end = [&](double distance) {
        const double running = alignment.running(distance);
        const auto h = designAt(design, std::clamp(running, design.front().station, design.back().station));
        within.push_back({running, h ? h->height : design.front().height});
    };
    end(from);
    for (const Pvi& p : design) {
        const double distance = p.station - alignment.startStation;
        if (distance > from + 1e-9 && distance < to - 1e-9) within.push_back(p);
    }
    end(to);
    linework::Line3D out;
    std::size_t next = 0;
    const auto distanceOf = [&](std::size_t k) { return within[k].station - alignment.startStation; };
    const auto pieces = piecesOf(alignment, from, to);
    for (const Piece& piece : pieces) {
        LineVertex corner;
        corner.rule = linework::Interpolated{};
        if (next < within.size() && distanceOf(next) < piece.from + 1e-6) corner = at(within[next++]);
        corner.place = piece.shape.start;
        corner.through = piece.shape.through;
        out.vertices.push_back(std::move(corner));
        for (; next < within.size() && distanceOf(next) < piece.to - 1e-6; ++next) {
            LineVertex point = at(within[next]);
            point.isCorner = false;
            point.fraction = (distanceOf(next) - piece.from) / (piece.to - piece.from);
            out.vertices.push_back(std::move(point));
        }
    }
    LineVertex corner = at(within.back());
    corner.place = pieces.back().shape.end;
    out.vertices.push_back(std::move(corner));
    if (const auto problem = linework::validate(out)) return badInput(*problem);
    return out;
}

}  // namespace erdwerk::route
