#include "core/derive/model.h"

#include <algorithm>
#include <set>

#include "core/derive/surface_build.h"
#include "core/linework/solver.h"

namespace erdwerk::derive {

namespace {

using Input = std::shared_ptr<const void>;

/// What a result was made from, and the result.
struct Memo {
    std::vector<Input> inputs;
    std::string parameters;
    std::shared_ptr<const void> value;
};

enum class Kind { Surface, Contours, CloudPart, Fit, Bands, Tiles, Line, Alignment, Profile, Parcel, Label };

}  // namespace

/// As in cancelled().
constexpr const char* cancelledText = "cancelled";

struct Model::State {
    std::map<std::pair<Kind, ObjectId>, Memo> memory;
    std::size_t computed = 0;
};

namespace {

class Evaluation {
public:
    Evaluation(std::map<std::pair<Kind, ObjectId>, Memo>& memory, std::size_t& computed,
               const Document& document, const Context& context)
        : memory_(memory), computed_(computed), document_(document), context_(context) {
        out_.document = document;
    }

    Result<Derived> run() {
        for (const ObjectId id : document_.all<Surface>()) surface(id);
        for (const ObjectId id : document_.all<Line>()) line(id);
        for (const ObjectId id : document_.all<Surface>()) contours(id);
        for (const ObjectId id : document_.all<Surface>()) fit(id);
        for (const ObjectId id : document_.all<Surface>()) bands(id);
        for (const ObjectId id : document_.all<Cloud>()) tiles(id);
        for (const ObjectId id : document_.all<Alignment>()) alignment(id);
        for (const ObjectId id : document_.all<Profile>()) profile(id);
        for (const ObjectId id : document_.all<Parcel>()) parcel(id);
        for (const ObjectId id : document_.all<Label>()) label(id);
        if (cancelled_ || context_.isCancelled()) return erdwerk::cancelled();
        std::erase_if(memory_,
                      [&](const auto& entry) { return document_.objects().count(entry.first.second) == 0; });
        return std::move(out_);
    }

private:
    /// The remembered value when it was made from the same inputs, else a new one. A cancelled one is not
    /// kept.
    template <class T, class Make>
    std::shared_ptr<const T> remembered(Kind kind, ObjectId id, std::vector<Input> inputs,
                                        std::string parameters, const Make& make) {
        Memo& memo = memory_[{kind, id}];
        if (memo.value && memo.inputs == inputs && memo.parameters == parameters)
            return std::static_pointer_cast<const T>(memo.value);
        auto value = std::make_shared<const T>(make());
        ++computed_;
        if (!cancelled_) memory_[{kind, id}] = {std::move(inputs), std::move(parameters), value};
        return value;
    }

    std::shared_ptr<const SurfaceResult> surface(ObjectId id) {
        if (const auto it = out_.surfaces.find(id); it != out_.surfaces.end()) return it->second;
        const auto* surface = document_.get<Surface>(id);
        if (surface == nullptr || busy_.count(id) != 0) return nullptr;
        busy_.insert(id);
        asked_.push_back({id, std::nullopt});
        std::vector<Input> inputs{surface->definition};
        std::vector<ResolvedSource> sources;
        for (const Source& source : expandedSources(document_, *surface->definition)) {
            ResolvedSource resolved{source, document_.find(source.object), nullptr};
            if (document_.get<Line>(source.object) != nullptr) {
                resolved.line = line(source.object);
                // A change of name or style of the line does not matter.
                resolved.object.reset();
                inputs.push_back(resolved.line);
                inputs.push_back(nullptr);
            } else {
                inputs.push_back(survey(resolved.object));
            }
            sources.push_back(std::move(resolved));
        }
        std::vector<std::shared_ptr<const SurfaceResult>> others;
        for (const SurfaceEdit& edit : surface->definition->edits)
            if (edit.edit.kind == terrain::EditKind::TakeOver && edit.on &&
                document_.get<Surface>(edit.surface)) {
                others.push_back(this->surface(edit.surface));
                inputs.push_back(others.back());
            }
        busy_.erase(id);
        asked_.pop_back();
        const auto before = std::static_pointer_cast<const SurfaceResult>(memory_[{Kind::Surface, id}].value);
        auto result = remembered<SurfaceResult>(Kind::Surface, id, std::move(inputs), {}, [&] {
            auto made = buildSurface(
                *surface->definition, sources, before.get(),
                [&](ObjectId other) -> const terrain::TinLocator* {
                    const auto it = out_.surfaces.find(other);
                    return it == out_.surfaces.end() || !it->second ? nullptr : it->second->locator.get();
                },
                context_);
            if (made.problem == cancelledText) cancelled_ = true;
            return made;
        });
        out_.surfaces[id] = result;
        return result;
    }

    /// What a surface takes from an object: for a cloud the points and which of them, whatever it looks like.
    Input survey(const std::shared_ptr<const Object>& object) {
        const auto* cloud = object ? std::get_if<Cloud>(&object->payload) : nullptr;
        if (cloud == nullptr) return object;
        std::string part(cloud->filter.classes.begin(), cloud->filter.classes.end());
        for (const auto& p : cloud->filter.inside) part += ' ' + formatExact(p.x) + ' ' + formatExact(p.y);
        Memo& memo = memory_[{Kind::CloudPart, object->id}];
        if (!memo.value || memo.inputs != std::vector<Input>{cloud->cloud} || memo.parameters != part)
            memo = {{cloud->cloud}, std::move(part), std::make_shared<const int>(0)};
        return memo.value;
    }

    void fit(ObjectId id) {
        const auto result = surface(id);
        const auto& payload = *document_.get<Surface>(id);
        if (!result || !result->locator) return;
        std::vector<Source> sources;
        if (payload.fit.source)
            sources.push_back({payload.fit.source, Role::Cloud});
        else
            for (const Source& s : expandedSources(document_, *payload.definition))
                if (s.role == Role::Cloud || s.role == Role::Raster) sources.push_back(s);
        std::vector<Input> inputs{result};
        std::vector<ResolvedSource> dense;
        for (const Source& s : sources)
            if (auto object = document_.find(s.object)) {
                inputs.push_back(survey(object));
                dense.push_back({s, std::move(object), nullptr});
            }
        if (dense.empty()) return;
        auto checked =
            remembered<FitResult>(Kind::Fit, id, std::move(inputs), formatExact(payload.fit.tolerance), [&] {
                auto made = checkFit(*result->locator, dense, payload.fit.tolerance, context_);
                if (!made && made.error().code == ErrorCode::Cancelled) cancelled_ = true;
                return made ? std::move(*made) : FitResult{};
            });
        if (checked->figures.points > 0) out_.fits[id] = std::move(checked);
    }

    void bands(ObjectId id) {
        const auto result = surface(id);
        const Bands shown = document_.get<Surface>(id)->style.bands;
        if (!result || !result->locator || shown == Bands::None) return;
        out_.bands[id] = remembered<BandTable>(Kind::Bands, id, {result}, std::string(bandsName(shown)), [&] {
            BandTable table;
            table.kind = static_cast<terrain::BandKind>(static_cast<int>(shown) - 1);
            table.limits = terrain::bandLimits(result->locator->tin(), table.kind);
            table.bands = terrain::bandsOf(result->locator->tin(), table.kind, table.limits);
            return table;
        });
    }

    void tiles(ObjectId id) {
        const auto& cloud = *document_.get<Cloud>(id);
        if (!cloud.cloud) return;
        out_.clouds[id] = remembered<survey::CloudTiles>(Kind::Tiles, id, {cloud.cloud}, {},
                                                         [&] { return survey::CloudTiles(*cloud.cloud); });
    }

    std::shared_ptr<const linework::ResolvedLine> line(ObjectId id) {
        if (const auto it = out_.lines.find(id); it != out_.lines.end()) return it->second;
        const auto* payload = document_.get<Line>(id);
        if (payload == nullptr) return nullptr;
        std::vector<Input> inputs{document_.find(id)};
        std::set<ObjectId> asked;
        for (const auto& v : payload->line.vertices)
            if (const auto* on = std::get_if<linework::OnSurface>(&v.rule);
                on != nullptr && asked.insert(on->surface).second)
                inputs.push_back(surface(on->surface));
        auto result = remembered<linework::ResolvedLine>(Kind::Line, id, std::move(inputs), {}, [&] {
            std::vector<ObjectId> circle;
            auto solved =
                linework::LineSolver(
                    payload->line, id,
                    [&](ObjectId on, geometry::Vec2 place) { return heightOf(on, place, circle); }, asked_)
                    .finish();
            for (auto& v : solved.vertices)
                if (v.circular && v.circle.empty()) v.circle = circle;
            return solved;
        });
        out_.lines[id] = result;
        return result;
    }

    /// For the rules of lines. `circle` receives what is in the circle that a surface made from the line
    /// closes.
    Result<std::optional<double>> heightOf(ObjectId on, geometry::Vec2 place, std::vector<ObjectId>& circle) {
        if (document_.get<Surface>(on) == nullptr)
            return fail(ErrorCode::NotFound, "its surface is no longer in the project");
        const auto found = surface(on);
        if (!found) {
            circle = linework::circleOf(asked_, {on, std::nullopt});
            return fail(ErrorCode::Circular,
                        "the line takes its height from a surface that is made from the line");
        }
        if (!found->locator) return std::optional<double>{};
        return found->locator->heightAt(place);
    }

    void contours(ObjectId id) {
        const auto result = surface(id);
        const auto& style = document_.get<Surface>(id)->style;
        if (!result || !result->locator || !style.contours) return;
        out_.contours[id] = remembered<std::vector<terrain::Contour>>(
            Kind::Contours, id, {result}, formatExact(style.interval) + (style.smooth ? " smooth" : ""), [&] {
                auto lines =
                    terrain::contours(result->locator->tin(), {style.interval, style.smooth}, context_);
                if (!lines && lines.error().code == ErrorCode::Cancelled) cancelled_ = true;
                return lines ? std::move(*lines) : std::vector<terrain::Contour>{};
            });
    }

    void alignment(ObjectId id) {
        const auto* payload = document_.get<Alignment>(id);
        const auto on = line(payload->line);
        if (!on) return;
        out_.alignments[id] =
            remembered<route::AlignmentGeometry>(Kind::Alignment, id, {document_.find(id), on}, {}, [&] {
                return route::alignmentOn(payload->reversed ? geometry::reversed(on->path) : on->path,
                                          payload->startStation);
            });
    }

    void profile(ObjectId id) {
        const auto* payload = document_.get<Profile>(id);
        const auto it = out_.alignments.find(payload->alignment);
        if (it == out_.alignments.end()) return;
        const auto ground = surface(payload->ground);
        out_.profiles[id] = remembered<ProfileResult>(Kind::Profile, id, {it->second, ground}, {}, [&] {
            ProfileResult result;
            if (!ground)
                result.problem = "no ground surface is chosen";
            else if (!ground->locator)
                result.problem = ground->problem;
            else
                result.ground = route::groundProfile(*it->second, *ground->locator);
            return result;
        });
    }

    void parcel(ObjectId id) {
        const auto object = document_.find(id);
        const auto& payload = std::get<Parcel>(object->payload);
        const auto on = line(payload.line);
        if (!on) return;
        out_.parcels[id] =
            remembered<ParcelResult>(Kind::Parcel, id, {object, on, document_.settingsPointer()}, {}, [&] {
                ParcelResult result;
                result.geometry =
                    parcel::survey(payload.reversed ? geometry::reversed(on->path) : on->path, payload.begin);
                const DisplaySettings& display = document_.settings().display;
                result.description =
                    parcel::describe(result.geometry, {object->name, payload.beginning, display});
                result.table = parcel::courseTable(result.geometry, display);
                return result;
            });
    }

    void label(ObjectId id) {
        const auto object = document_.find(id);
        const auto& payload = std::get<Label>(object->payload);
        const auto* style = document_.get<LabelStyle>(payload.style);
        const auto target = document_.find(payload.target);
        if (style == nullptr || !target) return;
        Input anchor = target;
        const auto on = line(payload.target);
        if (on) anchor = on;
        const auto* points = document_.get<Points>(payload.target);
        if (on ? payload.part >= on->path.size() : (points == nullptr || payload.part >= points->set.size()))
            return;
        out_.labels[id] = remembered<annotate::LabelText>(
            Kind::Label, id, {object, anchor, document_.find(payload.style), document_.settingsPointer()}, {},
            [&] {
                const DisplaySettings& display = document_.settings().display;
                return on ? annotate::labelSegment(on->path[payload.part], style->style, display)
                          : annotate::labelPoint(points->set[payload.part], style->style, display);
            });
    }

    std::map<std::pair<Kind, ObjectId>, Memo>& memory_;
    std::size_t& computed_;
    const Document& document_;
    const Context& context_;
    std::set<ObjectId> busy_;
    linework::AskedParts asked_;
    bool cancelled_ = false;
    Derived out_;
};

}  // namespace

const terrain::TinLocator* Derived::topSurface(geometry::Vec2 place) const {
    for (auto it = surfaces.rbegin(); it != surfaces.rend(); ++it) {
        const auto object = document.find(it->first);
        if (it->second->locator && object && !document.hidden(*object) &&
            it->second->locator->triangleAt(place))
            return it->second->locator.get();
    }
    return nullptr;
}

std::optional<double> Derived::topHeight(geometry::Vec2 place) const {
    const auto* surface = topSurface(place);
    return surface == nullptr ? std::nullopt : surface->heightAt(place);
}

Model::Model() : state_(std::make_unique<State>()) {}
Model::~Model() = default;
Model::Model(Model&&) noexcept = default;
Model& Model::operator=(Model&&) noexcept = default;

Result<Derived> Model::evaluate(const Document& document, const Context& context) {
    state_->computed = 0;
    return Evaluation(state_->memory, state_->computed, document, context).run();
}

std::size_t Model::computedLast() const {
    return state_->computed;
}

Result<Derived> evaluate(const Document& document, const Context& context) {
    return Model().evaluate(document, context);
}

}  // namespace erdwerk::derive
