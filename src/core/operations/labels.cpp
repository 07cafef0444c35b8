#include "core/operations/labels.h"

#include <cmath>
#include <set>
#include <tuple>

#include "core/annotate/label.h"
#include "core/derive/surface_result.h"
#include "core/document/following.h"
#include "core/geometry/element.h"
#include "core/geometry/inside.h"
#include "core/linework/line3d.h"
#include "core/objects/alignment.h"
#include "core/objects/label.h"
#include "core/objects/label_style.h"
#include "core/objects/line.h"
#include "core/objects/parcel.h"
#include "core/objects/points.h"
#include "core/survey/texts.h"

namespace erdwerk::operations {

using annotate::LabelKind;
using document::freshName;

namespace {

ObjectId labelStyle(Document& document, LabelKind kind) {
    for (const ObjectId id : document.all<objects::LabelStyle>())
        if (document.get<objects::LabelStyle>(id)->style.kind == kind) return id;
    ObjectId id;
    document = document.added("Plain " + std::string(annotate::kindName(kind)),
                              objects::LabelStyle{annotate::defaultStyle(kind)}, &id);
    return id;
}

LabelKind kindOfSide(const geometry::Segment& side) {
    return isCurved(side) ? LabelKind::Curve : LabelKind::Segment;
}

/// A label that could be made.
struct Wanted {
    LabelKind kind = LabelKind::Segment;
    ObjectId target;
    std::size_t part = 0;
    Label::On on = Label::On::Side;
};

Result<Wanted> sideOf(const Document& d, ObjectId target, std::size_t side) {
    ObjectId of = target;
    if (const auto* parcel = d.get<objects::Parcel>(of)) of = parcel->line;
    const auto* alignment = d.get<objects::Alignment>(of);
    if (alignment != nullptr && !alignment->line) {
        const auto path = document::alignmentIn(d, of).path;
        if (side >= path.size()) return badInput("pick an element of the alignment");
        return Wanted{kindOfSide(path[side]), of, side, Label::On::Side};
    }
    if (alignment != nullptr) {
        of = alignment->line;
        // The alignment may run against its line.
        if (const auto* l = d.get<objects::Line>(of); l != nullptr && alignment->reversed)
            side = planPath(l->line).size() - 1 - side;
    }
    const auto* line = d.get<objects::Line>(of);
    if (line == nullptr) return badInput("pick a side of a line, a curve or a survey point");
    const auto path = planPath(line->line);
    if (side >= path.size()) return badInput("pick a side of a line");
    return Wanted{kindOfSide(path[side]), of, side, Label::On::Side};
}

Edited with(Document d, const Wanted& wanted, const std::string& stem, geometry::Vec2 at = {}) {
    objects::Label label{wanted.target, wanted.part, labelStyle(d, wanted.kind), wanted.on};
    label.at = at;
    return d.added(freshName<objects::Label>(d, stem), std::move(label));
}

/// Everything that can be labelled of some objects.
class Labelling {
public:
    Labelling(const Document& document, LabelMany what) : d_(document), what_(what) {
        for (const ObjectId id : d_.all<objects::Label>()) {
            const auto& l = *d_.get<objects::Label>(id);
            const auto* style = d_.get<objects::LabelStyle>(l.style);
            if (style != nullptr) there_.insert(key(style->style.kind, l.target, l.part));
        }
    }
    void add(ObjectId target) {
        if (d_.get<objects::Group>(target) != nullptr) {
            for (const auto& [id, object] : d_.objects())
                if (object->group == target) add(id);
        } else if (const auto* points = d_.get<objects::Points>(target)) {
            for (std::size_t i = 0; what_.points && i < points->set.size(); ++i)
                if (!survey::isText(points->set[i]) && within(points->set[i].plan))
                    want({LabelKind::Point, target, i});
        } else if (const auto* parcel = d_.get<objects::Parcel>(target)) {
            const auto* line = d_.get<objects::Line>(parcel->line);
            const bool inside = line != nullptr && within(geometry::boundsOf(planPath(line->line)).centre());
            if (what_.areas && inside) want({LabelKind::Area, target, 0, Label::On::Whole});
            sides(parcel->line);
        } else if (const auto* line = d_.get<objects::Line>(target)) {
            sides(target);
            if (what_.controls) controls(target, line->line);
        } else if (const auto* alignment = d_.get<objects::Alignment>(target)) {
            sides(alignment->line ? alignment->line : target);
        }
    }
    [[nodiscard]] const std::vector<Wanted>& wanted() const { return wanted_; }

private:
    using Key = std::tuple<int, std::uint64_t, std::size_t>;
    /// Straight or curved, a side has one label.
    static Key key(LabelKind kind, ObjectId target, std::size_t part) {
        const auto k = kind == LabelKind::Curve ? LabelKind::Segment : kind;
        return {static_cast<int>(k), target.value, part};
    }
    void sides(ObjectId of) {
        if (!what_.sides) return;
        const auto* line = d_.get<objects::Line>(of);
        const auto path = line != nullptr ? planPath(line->line) : document::alignmentIn(d_, of).path;
        for (std::size_t i = 0; i < path.size(); ++i)
            if (within(pointAt(path[i], 0.5))) want({kindOfSide(path[i]), of, i});
    }
    void controls(ObjectId of, const linework::Line3D& line) {
        const auto placed = linework::placed(line);
        for (std::size_t i = 0; i < line.vertices.size(); ++i)
            if (linework::isControl(line.vertices[i].rule) && within(placed.vertices[i].place))
                want({LabelKind::Control, of, i, Label::On::Vertex});
    }
    [[nodiscard]] bool within(geometry::Vec2 place) const {
        return !what_.within || what_.within->contains(place);
    }
    void want(const Wanted& w) {
        if (there_.insert(key(w.kind, w.target, w.part)).second) wanted_.push_back(w);
    }

    const Document& d_;
    LabelMany what_;
    std::set<Key> there_;
    std::vector<Wanted> wanted_;
};

Labelling labelling(const Document& d, const std::vector<ObjectId>& targets, LabelMany what) {
    Labelling out(d, what);
    for (const ObjectId id : targets) out.add(id);
    return out;
}

Document withLabels(Document d, const std::vector<Wanted>& wanted) {
    std::set<std::string> names;
    for (const ObjectId id : d.all<objects::Label>()) names.insert(d.nameOf(id));
    std::vector<NewObject> fresh;
    fresh.reserve(wanted.size());
    std::size_t number = 0;
    for (const Wanted& w : wanted) {
        std::string name;
        do name = "Label " + std::to_string(++number);
        while (names.count(name) != 0);
        fresh.push_back(
            {name, objects::Label{w.target, w.part, labelStyle(d, w.kind), w.on}, d.find(w.target)->group});
    }
    return d.addedAll(std::move(fresh));
}

Edit ofLabel(ObjectId label, std::function<Result<void>(const Document&, objects::Label&)> change) {
    return [label, change = std::move(change)](const Document& d) -> Result<Edited> {
        const auto* old = d.get<objects::Label>(label);
        if (old == nullptr) return badInput("the label is gone");
        auto next = *old;
        if (auto done = change(d, next); !done) return tl::unexpected(done.error());
        return d.withPayload(label, std::move(next));
    };
}

}  // namespace

Edit makeLabel(ObjectId target, std::optional<std::size_t> part, std::size_t segment) {
    return [=](const Document& d) -> Result<Edited> {
        if (const auto* points = d.get<objects::Points>(target); points != nullptr && part) {
            if (*part >= points->set.size()) return badInput("that point is gone");
            return with(d, {LabelKind::Point, target, *part}, "Point label");
        }
        const auto wanted = sideOf(d, target, segment);
        if (!wanted) return tl::unexpected(wanted.error());
        return with(d, *wanted, "Label");
    };
}

Edit labelControl(ObjectId line, std::size_t vertex) {
    return [=](const Document& d) -> Result<Edited> {
        const auto* on = d.get<objects::Line>(line);
        if (on == nullptr || vertex >= on->line.vertices.size())
            return badInput("pick a corner or a grade point of a 3D line");
        return with(d, {LabelKind::Control, line, vertex, Label::On::Vertex}, "Height label");
    };
}

Edit labelArea(ObjectId parcel) {
    return [=](const Document& d) -> Result<Edited> {
        if (d.get<objects::Parcel>(parcel) == nullptr) return badInput("pick a parcel");
        return with(d, {LabelKind::Area, parcel, 0, Label::On::Whole}, "Area label");
    };
}

Edit labelPlace(ObjectId surface, LabelKind kind, geometry::Vec2 at) {
    return [=](const Document& d) -> Result<Edited> {
        if (d.get<objects::Surface>(surface) == nullptr) return badInput("pick a place on a surface");
        return with(d, {kind, surface, 0, Label::On::Place},
                    kind == LabelKind::Contour ? "Contour label"
                    : kind == LabelKind::Slope ? "Slope label"
                                               : "Spot height",
                    at);
    };
}

Edit labelStation(ObjectId alignment, double distance, double offset) {
    return [=](const Document& d) -> Result<Edited> {
        if (d.get<objects::Alignment>(alignment) == nullptr) return badInput("pick a place on an alignment");
        return with(d, {LabelKind::Station, alignment, 0, Label::On::Place}, "Station label",
                    {distance, offset});
    };
}

ObjectId surfaceAt(const Derived& derived, geometry::Vec2 place) {
    const auto* top = derived.topSurface(place);
    for (const auto& [id, result] : derived.surfaces)
        if (top != nullptr && result->locator.get() == top) return id;
    return {};
}

std::optional<StationUnder> stationUnder(const Derived& derived, ObjectId alignment, geometry::Vec2 place,
                                         double touch) {
    std::optional<StationUnder> best;
    for (const auto& [id, on] : derived.alignments) {
        if (on->path.empty() || (derived.alignments.count(alignment) != 0 && id != alignment)) continue;
        const auto near = geometry::nearestOn(on->path, place);
        if (!near || (best && std::abs(near->distance) >= std::abs(best->offset))) continue;
        best = {id, geometry::distanceAlong(on->path, *near), near->distance};
    }
    if (best && std::abs(best->offset) <= touch) best->offset = 0;
    return best;
}

std::size_t countToLabel(const Document& document, const std::vector<ObjectId>& targets, LabelMany what) {
    return labelling(document, targets, what).wanted().size();
}

Edit labelMany(std::vector<ObjectId> targets, LabelMany what) {
    return [targets = std::move(targets), what](const Document& d) -> Result<Edited> {
        const auto wanted = labelling(d, targets, what).wanted();
        if (wanted.empty()) return badInput("there is nothing here that has no label yet");
        const std::string count = std::to_string(wanted.size()) + (wanted.size() == 1 ? " label" : " labels");
        return Edited(withLabels(d, wanted), "Add " + count, count + " added");
    };
}

Edit relabel(std::vector<ObjectId> targets) {
    return [targets = std::move(targets)](const Document& given) -> Result<Edited> {
        Document d = withLabels(given, labelling(given, targets, {}).wanted());
        // What is meant: the targets, what stands in groups, the lines of parcels and alignments.
        std::set<ObjectId> meant(targets.begin(), targets.end());
        for (const auto& [id, object] : d.objects())
            if (meant.count(object->group) != 0) meant.insert(id);
        for (const ObjectId id : std::vector<ObjectId>(meant.begin(), meant.end())) {
            if (const auto* parcel = d.get<objects::Parcel>(id)) meant.insert(parcel->line);
            if (const auto* alignment = d.get<objects::Alignment>(id)) meant.insert(alignment->line);
        }
        std::size_t kept = 0;
        for (const ObjectId id : d.all<objects::Label>()) {
            const auto& label = *d.get<objects::Label>(id);
            if (meant.count(label.target) == 0) continue;
            if (label.byHand()) {
                ++kept;
                continue;
            }
            if (label.on != Label::On::Side || d.get<objects::Points>(label.target) != nullptr) continue;
            const auto side = sideOf(d, label.target, label.part);
            const auto* style = d.get<objects::LabelStyle>(label.style);
            if (!side || (style != nullptr && style->style.kind == side->kind)) continue;
            const ObjectId fitting = labelStyle(d, side->kind);
            d = changed<objects::Label>(d, id, [&](objects::Label& l) { l.style = fitting; });
        }
        const std::string said = kept == 0 ? ""
                                           : std::to_string(kept) +
                                                 (kept == 1 ? " label that was" : " labels that were") +
                                                 " changed by hand stayed as they are";
        if (document::difference(given, d).empty())
            return badInput(kept == 0 ? "all labels are as they would be made anew" : said);
        return Edited(std::move(d), "Label anew", said);
    };
}

std::vector<ObjectId> labelsOf(const Document& document, ObjectId target) {
    std::vector<ObjectId> out;
    for (const ObjectId id : document.all<objects::Label>())
        if (document.get<objects::Label>(id)->target == target) out.push_back(id);
    return out;
}

Edit addLabelStyles() {
    return [](const Document& given) -> Result<Edited> {
        Document d = given;
        for (const auto kind : annotate::allLabelKinds()) (void)labelStyle(d, kind);
        return d;
    };
}

Edit newLabelStyle(LabelKind kind) {
    return [kind](const Document& d) -> Result<Edited> {
        return d.added(freshName<objects::LabelStyle>(d, "Style for a " + std::string(kindName(kind))),
                       objects::LabelStyle{annotate::defaultStyle(kind)});
    };
}

Edit changeLabelStyle(ObjectId style, ChangeStyle change) {
    return [style, change = std::move(change)](const Document& d) -> Result<Edited> {
        const auto* old = d.get<objects::LabelStyle>(style);
        if (old == nullptr) return badInput("the style is gone");
        auto next = *old;
        change(next.style);
        if (auto valid = annotate::validate(next.style); !valid) return tl::unexpected(valid.error());
        return d.withPayload(style, std::move(next));
    };
}

Edit changeLabelByHand(ObjectId label, ChangeStyle change) {
    return ofLabel(label, [change = std::move(change)](const Document& d, objects::Label& l) -> Result<void> {
        const auto* style = d.get<objects::LabelStyle>(l.style);
        if (!l.own && style == nullptr) return badInput("its style is gone");
        auto own = l.own ? *l.own : style->style;
        change(own);
        if (auto valid = annotate::validate(own); !valid) return valid;
        l.own = std::move(own);
        return {};
    });
}

std::optional<geometry::Vec2> labelPlaceIn(const Document& document, ObjectId id) {
    const auto* label = document.get<objects::Label>(id);
    if (label == nullptr) return std::nullopt;
    if (const auto* points = document.get<objects::Points>(label->target))
        return label->part < points->set.size() ? std::optional(points->set[label->part].plan) : std::nullopt;
    if (document.get<objects::Alignment>(label->target) != nullptr) {
        const auto along = document::alignmentIn(document, label->target);
        if (along.path.empty()) return std::nullopt;
        if (label->on == Label::On::Place)
            return route::placeAt(along, along.running(label->at.x), label->at.y);
        return label->part < along.path.size() ? std::optional(pointAt(along.path[label->part], 0.5))
                                               : std::nullopt;
    }
    if (label->on == Label::On::Place) return label->at;
    const auto* parcel = document.get<objects::Parcel>(label->target);
    const auto* line = document.get<objects::Line>(parcel != nullptr ? parcel->line : label->target);
    if (line == nullptr) return std::nullopt;
    const auto placed = linework::placed(line->line);
    if (parcel != nullptr) return geometry::placeInside(geometry::flattened(placed.path, 0.1));
    if (label->on == Label::On::Vertex)
        return label->part < placed.vertices.size() ? std::optional(placed.vertices[label->part].place)
                                                    : std::nullopt;
    return label->part < placed.path.size() ? std::optional(pointAt(placed.path[label->part], 0.5))
                                            : std::nullopt;
}

Edit dragLabel(ObjectId label, geometry::Vec2 place) {
    return [label, place](const Document& d) -> Result<Edited> {
        const auto* old = d.get<objects::Label>(label);
        if (old == nullptr) return badInput("the label is gone");
        const auto* style = d.get<objects::LabelStyle>(old->style);
        if (style != nullptr && style->style.kind == LabelKind::Contour)
            return changed<objects::Label>(d, label, [place](objects::Label& l) { l.at = place; });
        const auto about = labelPlaceIn(d, label);
        if (!about) return badInput("what the label is about is gone");
        return moveLabel(label, place - *about)(d);
    };
}

Edit moveLabel(ObjectId label, std::optional<geometry::Vec2> moved) {
    return ofLabel(label, [moved](const Document&, objects::Label& l) -> Result<void> {
        l.moved = moved;
        return {};
    });
}

Edit typeLabelWords(ObjectId label, std::string words) {
    return ofLabel(label, [words = std::move(words)](const Document& d, objects::Label& l) -> Result<void> {
        const auto* style = d.get<objects::LabelStyle>(l.style);
        if (style == nullptr) return badInput("its style is gone");
        if (auto valid = annotate::checkWords(words, style->style.kind); !valid) return valid;
        l.words = words;
        return {};
    });
}

Edit labelAsStyled(ObjectId label) {
    return ofLabel(label, [](const Document&, objects::Label& l) -> Result<void> {
        l.moved.reset();
        l.own.reset();
        l.words.clear();
        return {};
    });
}

Edit setLabelStyle(std::vector<ObjectId> labels, ObjectId style) {
    return [labels = std::move(labels), style](const Document& given) -> Result<Edited> {
        const auto* to = given.get<objects::LabelStyle>(style);
        if (to == nullptr) return badInput("the style is gone");
        Document d = given;
        std::size_t done = 0;
        for (const ObjectId id : labels) {
            const auto* label = d.get<objects::Label>(id);
            const auto* from = label == nullptr ? nullptr : d.get<objects::LabelStyle>(label->style);
            if (from == nullptr || from->style.kind != to->style.kind) continue;
            d = changed<objects::Label>(d, id, [&](objects::Label& l) { l.style = style; });
            ++done;
        }
        if (done == 0)
            return badInput("that is a style for a " + std::string(kindName(to->style.kind)) +
                            ", and no label of one is picked");
        return d;
    };
}

}  // namespace erdwerk::operations
