#pragma once
// What the screens know of one kind of object: its words, its look in contents, its layer in plan, what is
// seen of it in 3D, its facts. One file in this folder for each kind; the list is all_kinds.h.

#include "app/base/snapshot.h"
#include "app/kinds/facts_form.h"
#include "app/plan/plan_layer.h"
#include "app/scene/scene_layer.h"

namespace erdwerk::app {

/// A sign of the plan and what it means. It is drawn into a room, with lines as wide as `unit` says.
struct PlanSign {
    QString text;
    std::function<void(QPainter&, const QRectF& room, double unit)> draw;
};

/// How an object stands in contents, beside its name.
struct ContentsLook {
    std::optional<QColor> swatch;
    friend bool operator==(const ContentsLook&, const ContentsLook&) = default;
};

class ObjectKind : public PlanLayer, public SceneLayer {
public:
    /// One: "3D line".
    [[nodiscard]] virtual QString noun() const = 0;
    /// Many, as a heading: "3D lines".
    [[nodiscard]] virtual QString title() const = 0;
    /// There are so many of them, or they matter so seldom, that their heading in contents starts folded.
    [[nodiscard]] virtual bool startsFolded() const { return false; }
    [[nodiscard]] virtual ContentsLook look(const objects::Object& object) const {
        (void)object;
        return {};
    }
    /// It, or what stands on it, lies somewhere in plan.
    [[nodiscard]] virtual bool hasPlace() const { return true; }
    /// It can be seen in a view, so it can be hidden.
    [[nodiscard]] virtual bool canHide() const { return !passes().empty(); }
    /// What signs it is drawn with; the same sign of several objects has the same text.
    [[nodiscard]] virtual std::vector<PlanSign> signs(const derive::Derived& derived, ObjectId id) const {
        (void)derived;
        (void)id;
        return {};
    }
    /// Settings of several objects of this kind, or parts of them, edited at once.
    virtual void factsOfMany(FactsForm& form, const std::vector<Ref>& refs) const {
        (void)form;
        (void)refs;
    }
    /// Figures and settings of an object, or of a part of it.
    virtual void facts(FactsForm& form, const Ref& ref) const = 0;
};

/// For kinds that are not drawn in plan.
template <class Base>
class NotInPlan : public Base {
public:
    [[nodiscard]] std::vector<PlanPass> passes() const override { return {}; }
    void paint(PlanCanvas&, ObjectId, PlanPass) const override {}
    void hit(SnapSearch&, ObjectId) const override {}
};

/// For kinds none of whose parts can be dragged.
template <class Base>
class StaysPut : public Base {
public:
    [[nodiscard]] std::optional<document::Edit> dragged(const Ref&, geometry::Vec2) const override {
        return std::nullopt;
    }
};

/// For kinds that are not seen in 3D.
template <class Base>
class NotInScene : public Base {
public:
    void show(SceneContent&, ObjectId) const override {}
};

}  // namespace erdwerk::app
