#include "core/operations/earthworks.h"

#include "core/base/notation.h"
#include "core/derive/earthwork_build.h"
#include "core/objects/line.h"
#include "core/operations/shape.h"
#include "core/operations/show.h"
#include "core/operations/with.h"

namespace erdwerk::operations {

using objects::Earthwork;
using objects::EarthworkSort;
using objects::Surface;

namespace {

std::string freeName(const Document& document, const std::string& wanted) {
    const auto taken = [&](const std::string& name) {
        for (const auto& [id, object] : document.objects())
            if (object->name == name) return true;
        return false;
    };
    std::string name = wanted;
    for (int number = 2; taken(name); ++number) name = wanted + " " + std::to_string(number);
    return name;
}

Result<void> valid(const Document& document, const Earthwork& e) {
    const auto* edge = document.get<objects::Line>(e.edge);
    if (edge == nullptr) return badInput("pick the line that is its edge");
    if (e.sort != EarthworkSort::Batter && !edge->line.closed)
        return badInput("the edge of a " + std::string(sortName(e.sort)) + " is a closed line; '" +
                        document.nameOf(e.edge) + "' is open");
    const bool toGround = std::holds_alternative<earthwork::ToSurface>(e.form.target);
    if ((e.sort != EarthworkSort::Batter || toGround) && document.get<Surface>(e.ground) == nullptr)
        return badInput("it has no ground to run to");
    if (e.sort != EarthworkSort::Batter && !toGround)
        return badInput("a " + std::string(sortName(e.sort)) + " runs to its ground");
    if (!(e.earth.swell > 0) || !(e.earth.shrink > 0)) return badInput("swell and shrink must be above 0");
    const auto shape = earthwork::shapeOf(e.form, e.right);
    if (!shape) return tl::unexpected(shape.error());
    return {};
}

/// Puts an earthwork into the finished surface of its ground, after those that are there.
Result<Document> intoFinished(Document d, ObjectId id, ObjectId ground) {
    ObjectId finished = finishedOf(d, ground);
    if (!finished) {
        Surface made;
        made.style = d.get<Surface>(ground)->style;
        SurfaceDefinition definition;
        definition.base = ground;
        made.definition = std::make_shared<const SurfaceDefinition>(std::move(definition));
        d = d.added(freeName(d, d.nameOf(ground) + " finished"), std::move(made), &finished);
        auto hidden = setShown({ground}, false)(d);
        if (!hidden) return tl::unexpected(hidden.error());
        d = std::move(hidden->document);
    }
    SurfaceEdit part;
    part.edit.kind = terrain::EditKind::TakeOver;
    part.surface = id;
    return withOwnEdit(d, finished, part);
}

}  // namespace

std::vector<ObjectId> possibleGrounds(const Document& document) {
    std::vector<ObjectId> out;
    for (const ObjectId id : document.all<Surface>())
        if (!document.get<Surface>(id)->definition->base) out.push_back(id);
    return out;
}

ObjectId groundUnder(const Derived& seen, ObjectId line) {
    const auto* resolved = Derived::in(seen.lines, line);
    if (resolved == nullptr || resolved->path.empty()) return {};
    const auto middle = pointAt(resolved->path.front(), 0.5);
    ObjectId found;
    for (const ObjectId id : possibleGrounds(seen.document))
        if (const auto* surface = seen.surface(id); surface != nullptr && surface->triangleAt(middle))
            found = id;
    return found;
}

Edit addEarthwork(Earthwork made) {
    return [made = std::move(made)](const Document& document) -> Result<Edited> {
        if (auto ok = valid(document, made); !ok) return tl::unexpected(ok.error());
        const auto edge = document.find(made.edge);
        const std::string name = freeName(document, edge->name + " " + std::string(sortName(made.sort)));
        ObjectId id;
        Document d = document.added(name, made, &id, edge->group);
        if (made.ground) {
            auto with = intoFinished(std::move(d), id, made.ground);
            if (!with) return tl::unexpected(with.error());
            d = std::move(*with);
        }
        return Edited(std::move(d), "Make " + name);
    };
}

Edit changeEarthwork(ObjectId id, std::function<Result<void>(Earthwork&)> change) {
    return [id, change = std::move(change)](const Document& document) -> Result<Edited> {
        const auto* now = document.get<Earthwork>(id);
        if (now == nullptr) return badInput("it is gone");
        Earthwork next = *now;
        if (auto done = change(next); !done) return tl::unexpected(done.error());
        if (auto ok = valid(document, next); !ok) return tl::unexpected(ok.error());
        return Edited(document.withPayload(id, std::move(next)));
    };
}

Edit setTypedSlope(ObjectId id, SlopeOf which, const std::string& text) {
    return changeEarthwork(id,
                           [which, text](Earthwork& e) { return earthwork::setSlope(e.form, which, text); });
}

Edit setTypedBerms(ObjectId id, const std::string& text) {
    return changeEarthwork(id, [text](Earthwork& e) -> Result<void> {
        auto berms = earthwork::parseBerms(text);
        if (!berms) return tl::unexpected(berms.error());
        e.form.berms = std::move(*berms);
        return {};
    });
}

Edit setTypedTarget(ObjectId id, const std::string& text) {
    return changeEarthwork(id, [text](Earthwork& e) -> Result<void> {
        const auto target = earthwork::parseTarget(text);
        if (!target) return tl::unexpected(target.error());
        // One that rose goes on rising.
        const auto* rise = std::get_if<earthwork::ToRise>(&e.form.target);
        earthwork::setTarget(e.form, *target, rise != nullptr && rise->rise > 0);
        return {};
    });
}

Result<std::optional<objects::EarthworkStretch>> parseStretch(const std::string& text) {
    const std::string typed(trimmed(text));
    if (typed.empty() || typed == "all") return std::optional<objects::EarthworkStretch>{};
    const auto word = typed.find(" to ");
    const auto from = parseNumber(std::string_view(typed).substr(0, std::min(word, typed.size())));
    const auto to = word == std::string::npos ? std::optional<double>{}
                                              : parseNumber(std::string_view(typed).substr(word + 4));
    if (!from || !to || *from < 0 || *to < 0)
        return badInput("'" + typed + "' is no stretch; write 20 to 60, or all");
    return std::optional(objects::EarthworkStretch{*from, *to});
}

Edit setTypedStretch(ObjectId id, const std::string& text) {
    return changeEarthwork(id, [text](Earthwork& e) -> Result<void> {
        const auto stretch = parseStretch(text);
        if (!stretch) return tl::unexpected(stretch.error());
        e.stretch = *stretch;
        return {};
    });
}

namespace {

/// "20 to 40: 1:1, 3:1"
Result<earthwork::SlopeChange> parseChange(const std::string& text) {
    const auto wrong = [&] {
        return badInput("'" + text + "' is no change of slopes; write 20 to 40: 1:1, 3:1 (cut, fill)");
    };
    const auto to = text.find(" to ");
    const auto colon = text.find(':', to == std::string::npos ? 0 : to);
    const auto comma = text.find(',', colon == std::string::npos ? 0 : colon);
    if (to == std::string::npos || colon == std::string::npos || comma == std::string::npos) return wrong();
    const auto from = parseNumber(std::string_view(text).substr(0, to));
    const auto until = parseNumber(std::string_view(text).substr(to + 4, colon - to - 4));
    if (!from || !until || *until < *from) return wrong();
    const auto cut = earthwork::parseSlope(
        std::string(trimmed(std::string_view(text).substr(colon + 1, comma - colon - 1))));
    if (!cut) return tl::unexpected(cut.error());
    const auto fill = earthwork::parseSlope(std::string(trimmed(std::string_view(text).substr(comma + 1))));
    if (!fill) return tl::unexpected(fill.error());
    return earthwork::SlopeChange{*from, *until, *cut, *fill};
}

}  // namespace

Edit setTypedChanges(ObjectId id, const std::string& text) {
    return changeEarthwork(id, [text](Earthwork& e) -> Result<void> {
        std::vector<earthwork::SlopeChange> changes;
        for (std::size_t at = 0; at < text.size();) {
            const auto end = std::min(text.find(';', at), text.size());
            const std::string one(trimmed(std::string_view(text).substr(at, end - at)));
            at = end + 1;
            if (one.empty()) continue;
            const auto change = parseChange(one);
            if (!change) return tl::unexpected(change.error());
            if (!changes.empty() && change->from < changes.back().to)
                return badInput("'" + one + "' begins before the change before it ends");
            changes.push_back(*change);
        }
        e.form.changes = std::move(changes);
        return {};
    });
}

std::string changesText(const std::vector<earthwork::SlopeChange>& changes) {
    std::string out;
    const auto ratio = [](double slope) { return formatExact(1 / slope) + ":1"; };
    for (const auto& c : changes)
        out += (out.empty() ? "" : "; ") + formatExact(c.from) + " to " + formatExact(c.to) + ": " +
               ratio(c.cut) + ", " + ratio(c.fill);
    return out;
}

Edit saveBatterKind(const std::string& name, const earthwork::BatterForm& form) {
    return [=](const Document& document) -> Result<Edited> {
        const std::string by(trimmed(name));
        if (by.empty()) return badInput("type a name for the kind of batter");
        const auto shape = earthwork::shapeOf(form, false);
        if (!shape) return tl::unexpected(shape.error());
        const objects::BatterKind kind{form};
        if (const ObjectId there = document.byName<objects::BatterKind>(by))
            return Edited(document.withPayload(there, kind), "Keep the batter as " + by);
        return Edited(document.added(by, kind), "Keep the batter as " + by);
    };
}

Edit takeBatterKind(ObjectId id, ObjectId kind) {
    return [=](const Document& document) -> Result<Edited> {
        const auto* kept = document.get<objects::BatterKind>(kind);
        if (kept == nullptr) return badInput("there is no such kind of batter");
        return changeEarthwork(id, [form = kept->form](Earthwork& e) -> Result<void> {
            e.form = form;
            return {};
        })(document);
    };
}

namespace {

/// What balancing starts from.
struct PadOn {
    earthwork::Edge edge;
    earthwork::PadShape shape;
    const terrain::TinLocator& ground;
    earthwork::Earth earth;
};

Result<PadOn> padOn(const Derived& seen, ObjectId id) {
    const auto* object = seen.document.get<Earthwork>(id);
    const auto* now = Derived::in(seen.earthworks, id);
    if (object == nullptr || now == nullptr) return badInput("it is gone");
    if (object->sort == EarthworkSort::Batter) return badInput("a batter has no earth to balance; a pad has");
    const auto on = derive::basisOf(seen, *object);
    if (!on.edge || !now->ground) return badInput("it has no ground to stand on");
    const auto edge = earthwork::edgeOf(*on.edge);
    if (!edge) return tl::unexpected(edge.error());
    const auto shape = derive::padShapeOf(*object, on);
    if (!shape) return tl::unexpected(shape.error());
    return PadOn{*edge, *shape, *now->ground, object->earth};
}

}  // namespace

Result<earthwork::Balanced> balanceOf(const Derived& seen, ObjectId id, double surplus,
                                      const Context& context) {
    const auto on = padOn(seen, id);
    if (!on) return tl::unexpected(on.error());
    return earthwork::balanced(on->edge, on->shape, on->ground, on->earth, surplus, context);
}

Result<std::vector<earthwork::BalancePoint>> balanceCurve(const Derived& seen, ObjectId id, double reach,
                                                          const Context& context) {
    constexpr int places = 13;
    const auto on = padOn(seen, id);
    if (!on) return tl::unexpected(on.error());
    auto curve =
        earthwork::balanceCurve(on->edge, on->shape, on->ground, on->earth, -reach, reach, places, context);
    if (curve)
        for (auto& p : *curve) p.lift += on->edge.corners.front().z;
    return curve;
}

document::LongEdit balanceEarthwork(const Results& seen, ObjectId id, double surplus) {
    const auto* object = seen->document.get<Earthwork>(id);
    const ObjectId edge = object != nullptr ? object->edge : ObjectId{};
    return document::onlyWhileSame(
        seen->document, {id, edge},
        [seen, id, edge, surplus](const Document& document, const Context& context) -> Result<Edited> {
            const auto found = balanceOf(*seen, id, surplus, context);
            if (!found) return tl::unexpected(found.error());
            if (std::abs(found->lift) < 1e-12) return badInput("it is balanced already");
            auto lifted = lift(seen, {{edge, std::nullopt}}, found->lift)(document);
            if (!lifted) return lifted;
            const auto& display = document.settings().display;
            return Edited(std::move(lifted->document), "Balance " + document.nameOf(id),
                          "Lifted by " + formatHeight(found->lift, display) + " to " +
                              formatHeight(found->pad.height, display));
        });
}

}  // namespace erdwerk::operations
