// Labels: their texts and where they stand.

#include <algorithm>
#include <cmath>
#include <functional>

#include "core/annotate/label.h"
#include "core/annotate/label_style.h"
#include "core/derive/evaluation.h"
#include "core/derive/surface_result.h"
#include "core/geometry/inside.h"
#include "core/objects/label.h"
#include "core/objects/label_style.h"
#include "core/objects/parcel.h"
#include "core/objects/points.h"
#include "core/objects/surface.h"
#include "core/objects/wording.h"
#include "core/parcel/parcel.h"
#include "core/route/alignment.h"
#include "core/terrain/contours.h"
#include "core/terrain/tin.h"

namespace erdwerk::derive {

namespace {

using annotate::LabelText;
using annotate::LabelWriting;

LabelText nothing(std::string why) {
    LabelText out;
    out.problem = std::move(why);
    return out;
}

/// The gradient of a triangle: height per unit to the east and to the north.
Vec2 gradientOf(const terrain::Tin& tin, std::uint32_t triangle) {
    const auto a = tin.vertex(tin.corner(triangle, 0));
    const auto b = tin.vertex(tin.corner(triangle, 1));
    const auto c = tin.vertex(tin.corner(triangle, 2));
    const Vec2 u{b.x - a.x, b.y - a.y};
    const Vec2 v{c.x - a.x, c.y - a.y};
    const double twice = geometry::cross(u, v);
    if (twice == 0) return {};
    return {((b.z - a.z) * v.y - (c.z - a.z) * u.y) / twice, ((c.z - a.z) * u.x - (b.z - a.z) * v.x) / twice};
}

/// The place on a contour that is nearest to another place, and the direction of the line there.
struct OnContour {
    double height = 0;
    Vec2 place;
    Vec2 along{1, 0};
    double distance = INFINITY;
};

using Contours = std::vector<terrain::Contour>;

OnContour nearestOf(Contours::const_iterator from, Contours::const_iterator to, Vec2 at) {
    OnContour best;
    for (auto contour = from; contour != to; ++contour)
        for (std::size_t i = 1; i < contour->places.size(); ++i) {
            const Vec2 a = contour->places[i - 1];
            const Vec2 side = contour->places[i] - a;
            const double square = geometry::dot(side, side);
            const double t = square > 0 ? std::clamp(geometry::dot(at - a, side) / square, 0.0, 1.0) : 0.0;
            const Vec2 place = a + side * t;
            const double distance = geometry::distance(place, at);
            if (distance < best.distance) best = {contour->height, place, side, distance};
        }
    return best;
}

/// The nearest one is of a level beside the height of the ground there, where that is known.
OnContour nearestContour(const Contours& contours, Vec2 at, std::optional<double> height, double interval) {
    if (height) {
        const auto below = [](const terrain::Contour& c, double h) { return c.height < h; };
        const auto from =
            std::lower_bound(contours.begin(), contours.end(), *height - 1.001 * interval, below);
        const auto to = std::lower_bound(from, contours.end(), *height + 1.001 * interval, below);
        if (const auto best = nearestOf(from, to, at); best.distance < INFINITY) return best;
    }
    return nearestOf(contours.begin(), contours.end(), at);
}

/// One label, written from what it holds on to.
class LabelWork {
public:
    LabelWork(Evaluation& evaluation, const Label& label, const annotate::LabelStyle& style)
        : e_(evaluation), label_(label), how_{style, e_.document.settings().display, label.words} {}

    /// What it depends on, and how it is made of that; nothing where there is nothing to label.
    using Make = std::function<LabelText()>;
    std::optional<std::pair<std::vector<Input>, Make>> prepare() {
        switch (how_.style.kind) {
            case annotate::LabelKind::Contour:
            case annotate::LabelKind::Spot:
            case annotate::LabelKind::Slope:
                return onSurface();
            case annotate::LabelKind::Station:
                return atStation();
            case annotate::LabelKind::Area:
                return ofParcel();
            case annotate::LabelKind::Control:
                return ofControl();
            case annotate::LabelKind::Point:
                return ofPoint();
            default:
                return ofSide();
        }
    }

private:
    using Prepared = std::optional<std::pair<std::vector<Input>, Make>>;

    Prepared onSurface() {
        const auto surface = e_.surface(label_.target);
        if (!surface) return std::nullopt;
        const bool onContour = how_.style.kind == annotate::LabelKind::Contour;
        const auto contours = onContour ? e_.contours(label_.target) : nullptr;
        const double interval = e_.document.get<Surface>(label_.target)->style.interval;
        return std::pair(
            std::vector<Input>{surface, contours}, Make([=, this] {
                const auto triangle = surface->locator ? surface->locator->triangleAt(label_.at)
                                                       : std::optional<std::uint32_t>{};
                if (onContour) {
                    const auto height = triangle ? surface->locator->heightAt(label_.at) : std::nullopt;
                    const auto on =
                        contours ? nearestContour(*contours, label_.at, height, interval) : OnContour{};
                    if (!(on.distance < INFINITY)) return nothing("there is no contour near it");
                    auto out = annotate::labelPlace(on.place, on.height, {}, how_);
                    out.direction = annotate::upright(geometry::azimuth({0, 0}, on.along));
                    return out;
                }
                if (!triangle) return nothing("it lies off the surface");
                return annotate::labelPlace(label_.at, *surface->locator->heightAt(label_.at),
                                            gradientOf(surface->locator->tin(), *triangle), how_);
            }));
    }
    Prepared atStation() {
        const auto along = e_.alignment(label_.target);
        if (!along) return std::nullopt;
        return std::pair(
            std::vector<Input>{along}, Make([this, along] {
                if (along->path.empty()) return nothing("its alignment has no length");
                const auto [distance, offset] = label_.at;
                if (distance < -1e-9 || distance > along->length + 1e-9)
                    return nothing("its alignment does not reach its station any more");
                const double running = along->running(distance);
                return annotate::labelStation(
                    route::placeAt(*along, running, offset),
                    {along->read(running), offset, geometry::positionAt(along->path, distance).direction},
                    how_);
            }));
    }
    Prepared ofParcel() {
        const auto* parcel = e_.document.get<Parcel>(label_.target);
        if (parcel == nullptr) return std::nullopt;
        const auto line = e_.line(parcel->line);
        if (!line) return std::nullopt;
        const auto object = e_.document.find(label_.target);
        return std::pair(std::vector<Input>{line, object}, Make([this, line, object] {
                             const auto geometry = parcel::survey(line->path);
                             if (geometry.courses.empty()) return nothing("its parcel has no courses");
                             return annotate::labelArea(
                                 geometry::placeInside(geometry::flattened(line->path, 0.1)),
                                 {object->name, geometry.area, geometry.perimeter}, how_);
                         }));
    }
    Prepared ofControl() {
        const auto line = e_.line(label_.target);
        if (!line || label_.part >= line->vertices.size()) return std::nullopt;
        const auto object = e_.document.find(label_.target);
        return std::pair(std::vector<Input>{line, object}, Make([this, line, object] {
                             const auto& v = line->vertices[label_.part];
                             const auto height = linework::heightAt(*line, v.distance);
                             return annotate::labelControl(
                                 v.place, {object->name, height, line->gradeAhead(label_.part), v.distance},
                                 how_);
                         }));
    }
    Prepared ofPoint() {
        const auto* points = e_.document.get<Points>(label_.target);
        if (points == nullptr || label_.part >= points->set.size()) return std::nullopt;
        return std::pair(std::vector<Input>{e_.document.find(label_.target)}, Make([this, points] {
                             return annotate::labelPoint(points->set[label_.part], how_);
                         }));
    }
    Prepared ofSide() {
        const auto on = e_.line(label_.target);
        const auto along = on ? nullptr : e_.alignment(label_.target);
        const geometry::Path* path = on ? &on->path : (along ? &along->path : nullptr);
        if (path == nullptr || label_.part >= path->size()) return std::nullopt;
        return std::pair(std::vector<Input>{on ? Input(on) : Input(along)}, Make([this, on, along, path] {
                             std::optional<double> from;
                             std::optional<double> to;
                             if (on) {
                                 double start = 0;
                                 for (std::size_t i = 0; i < label_.part; ++i) start += lengthOf((*path)[i]);
                                 from = linework::heightAt(*on, start);
                                 to = linework::heightAt(*on, start + lengthOf((*path)[label_.part]));
                             }
                             return annotate::labelSegment((*path)[label_.part], how_, from, to);
                         }));
    }

    Evaluation& e_;
    const Label& label_;
    annotate::LabelWriting how_;
};

}  // namespace

void work(Evaluation& evaluation, ObjectId id, const Label& label) {
    const Document& document = evaluation.document;
    const auto* style = document.get<LabelStyle>(label.style);
    if (style == nullptr || !document.find(label.target)) return;
    LabelWork work(evaluation, label, label.own ? *label.own : style->style);
    auto prepared = work.prepare();
    if (!prepared) return;
    auto& [inputs, make] = *prepared;
    inputs.push_back(document.find(id));
    inputs.push_back(document.find(label.style));
    inputs.push_back(document.settingsPointer());
    evaluation.out.labels[id] =
        evaluation.remembered<LabelText>("label", id, std::move(inputs), {}, [&, &how = make] {
            LabelText out = how();
            if (out.problem.empty() && out.lines.empty()) out.problem = "its style says nothing of this";
            if (label.moved) out.byHand = out.place + *label.moved;
            return out;
        });
}

}  // namespace erdwerk::derive
