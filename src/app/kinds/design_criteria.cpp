// Criteria that designs are checked against.

#include "core/objects/design_criteria.h"
#include "app/kinds/all_kinds.h"
#include "core/base/notation.h"
#include "core/operations/routes.h"

namespace erdwerk::app {

namespace {

using route::Criteria;

document::Edit changed(ObjectId id, std::function<Result<void>(Criteria&)> change) {
    return [id, change = std::move(change)](const document::Document& d) -> Result<document::Edited> {
        const auto* now = d.get<objects::DesignCriteria>(id);
        if (now == nullptr) return badInput("they are gone");
        Criteria criteria = now->criteria;
        if (auto done = change(criteria); !done) return tl::unexpected(done.error());
        if (auto valid = route::validate(criteria); !valid) return tl::unexpected(valid.error());
        return document::changed<objects::DesignCriteria>(
            d, id, [&](objects::DesignCriteria& c) { c.criteria = std::move(criteria); });
    };
}

class DesignCriteriaKind final : public NotInPlan<StaysPut<NotInScene<ObjectKind>>> {
public:
    [[nodiscard]] QString noun() const override { return QObject::tr("criteria"); }
    [[nodiscard]] QString title() const override { return QObject::tr("Criteria"); }
    [[nodiscard]] bool hasPlace() const override { return false; }
    void bounds(const derive::Derived&, ObjectId, geometry::Box&) const override {}
    void handles(HandlePainter&, const Ref&) const override {}
    void facts(FactsForm& form, const Ref& ref) const override {
        const ObjectId id = ref.object;
        const Criteria& kept = form.document().get<objects::DesignCriteria>(id)->criteria;
        form.heading(form.nameOf(id));
        form.nameEntry(id);
        form.fact(QObject::tr("Unit"),
                  kept.unit == LengthUnit::Metre ? QObject::tr("metres") : QObject::tr("feet"));
        form.heading(QObject::tr("At every speed"));
        limit(form, id, QObject::tr("Steepest grade, %"), kept.maxGrade, &Criteria::maxGrade);
        limit(form, id, QObject::tr("Flattest grade, %"), kept.minGrade, &Criteria::minGrade);
        limit(form, id, QObject::tr("Shortest curve"), kept.minCurveLength, &Criteria::minCurveLength);
        limit(form, id, QObject::tr("Shortest straight"), kept.minTangent, &Criteria::minTangent);
        limit(form, id, QObject::tr("Turn without curve, °"), kept.maxDeflection, &Criteria::maxDeflection);
        form.heading(QObject::tr("Least by speed"));
        for (std::size_t k = 0; k < kept.bySpeed.size(); ++k)
            form.typedEntry(text(formatExact(kept.bySpeed[k].speed)),
                            text(route::limitsText(kept.bySpeed[k])), [id, k](std::string typed) {
                                return changed(id, [k, typed](Criteria& c) -> Result<void> {
                                    if (k >= c.bySpeed.size()) return badInput("that speed is gone");
                                    auto limits = route::parseLimits(c.bySpeed[k].speed, typed);
                                    if (!limits) return tl::unexpected(limits.error());
                                    c.bySpeed[k] = *limits;
                                    return {};
                                });
                            });
        form.heading(QObject::tr("Where they come from"));
        form.fact(QObject::tr("Arithmetic"), text(kept.source));
    }

private:
    static void limit(FactsForm& form, ObjectId id, const QString& name, const std::optional<double>& value,
                      std::optional<double> Criteria::*field) {
        form.typedEntry(name, value ? text(formatExact(*value)) : QString(), [id, field](std::string typed) {
            return changed(id, [field, typed](Criteria& c) -> Result<void> {
                const auto figure = parseNumber(trimmed(typed));
                if (!trimmed(typed).empty() && !figure) return badInput("'" + typed + "' is no figure");
                c.*field = figure;
                return {};
            });
        });
    }
};

}  // namespace

template <>
const ObjectKind& kindOf<objects::DesignCriteria>() {
    static const DesignCriteriaKind kind;
    return kind;
}

}  // namespace erdwerk::app
