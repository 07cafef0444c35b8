// Batters, pads and ponds.

#include <QPushButton>

#include "app/base/theme.h"
#include "app/kinds/all_kinds.h"
#include "app/kinds/balance_curve.h"
#include "app/kinds/plan_signs.h"
#include "core/base/notation.h"
#include "core/derive/earthwork_result.h"
#include "core/earthwork/hachures.h"
#include "core/earthwork/storage.h"
#include "core/operations/earthworks.h"

namespace erdwerk::app {

using document::Document;
using geometry::Vec2;
using geometry::Vec3;
using objects::Earthwork;
using objects::EarthworkSort;

namespace {

geometry::Path pathOf(const std::vector<Vec3>& chain) {
    geometry::Path out;
    for (std::size_t i = 0; i + 1 < chain.size(); ++i)
        out.push_back({chain[i].plan(), chain[i + 1].plan(), std::nullopt});
    return out;
}

QString sortWord(EarthworkSort sort) {
    switch (sort) {
        case EarthworkSort::Pad:
            return QObject::tr("pad");
        case EarthworkSort::Pond:
            return QObject::tr("pond");
        default:
            return QObject::tr("batter");
    }
}

class EarthworkKind final : public StaysPut<ObjectKind> {
public:
    [[nodiscard]] QString noun() const override { return QObject::tr("earthwork"); }
    [[nodiscard]] QString title() const override { return QObject::tr("Earthworks"); }
    void bounds(const derive::Derived& derived, ObjectId id, geometry::Box& box) const override {
        const auto* made = derive::Derived::in(derived.earthworks, id);
        if (made != nullptr && made->surface) box.add(made->surface->tin().bounds());
    }
    [[nodiscard]] std::optional<objects::PlanPart> part() const override {
        return objects::PlanPart::Linework;
    }
    [[nodiscard]] std::vector<PlanPass> passes() const override { return {PlanPass::Linework}; }
    [[nodiscard]] std::vector<PlanSign> signs(const derive::Derived&, ObjectId) const override {
        return {lineSign(QObject::tr("Daylight of an earthwork"), theme::breakline, 1.1, Qt::DashLine)};
    }
    void paint(PlanCanvas& canvas, ObjectId id, PlanPass) const override {
        const auto* made = derive::Derived::in(canvas.derived.earthworks, id);
        if (made == nullptr || !made->faces || !made->faces->tin().bounds().meets(canvas.window)) return;
        canvas.painter.setBrush(Qt::NoBrush);
        canvas.painter.setPen(canvas.pen(theme::breakline, 1.1, Qt::DashLine));
        for (const auto& chain : made->batter.daylight)
            canvas.painter.drawPolyline(polyline(pathOf(chain), canvas.view));
        const double pixel = canvas.unit / canvas.view.scale;
        const double spacing = 6 * pixel;
        if (made->batter.daylightLength / spacing > 20000) return;
        canvas.painter.setPen(canvas.pen(theme::breakline, 0.8));
        for (const auto& h : earthwork::hachures(made->batter, *made->faces, spacing, 14 * pixel))
            canvas.painter.drawLine(canvas.view.toPicture(h.from), canvas.view.toPicture(h.to));
    }
    void hit(SnapSearch& search, ObjectId id) const override {
        const auto* made = derive::Derived::in(search.derived().earthworks, id);
        if (made == nullptr) return;
        for (const auto& chain : made->batter.daylight)
            search.addPath(id, pathOf(chain), QObject::tr("daylight of %1").arg(search.nameOf(id)));
    }
    void handles(HandlePainter& painter, const Ref& ref) const override {
        const auto* made = derive::Derived::in(painter.derived().earthworks, ref.object);
        if (made == nullptr) return;
        for (const auto& chain : made->batter.daylight) painter.path(pathOf(chain));
        for (const auto& open : made->batter.open)
            painter.ring(geometry::lerp(open.start.plan(), open.end.plan(), 0.5), 9, Qt::DotLine);
    }
    void show(SceneContent& content, ObjectId id) const override {
        const auto* made = derive::Derived::in(content.derived().earthworks, id);
        if (made == nullptr) return;
        const bool selected = content.selected(id);
        for (const auto& chain : made->batter.daylight)
            content.addStroke({chain, selected ? theme::clay : theme::breakline, selected ? 3.0F : 1.5F});
    }
    void facts(FactsForm& form, const Ref& ref) const override {
        const ObjectId id = ref.object;
        const auto& object = *form.document().get<Earthwork>(id);
        const auto* made = derive::Derived::in(form.derived().earthworks, id);
        form.heading(form.nameOf(id));
        form.nameEntry(id);
        if (made != nullptr && !made->problem.empty()) form.fact(QObject::tr("Trouble"), text(made->problem));
        form.fact(QObject::tr("It is a"),
                  QObject::tr("%1 from %2").arg(sortWord(object.sort), form.nameOf(object.edge)));
        if (made != nullptr && made->problem.empty()) figures(form, object, *made);
        slopes(form, id, object);
        if (object.sort != EarthworkSort::Batter) earth(form, id, object);
        if (made != nullptr && made->storage) stages(form, *made->storage);
        form.groupChoice(id);
    }

private:
    static QString volume(const FactsForm& form, double v) {
        return QString::fromStdString(formatFixed(v, 1)) + QLatin1Char(' ') +
               QString::fromUtf8(unitSymbol(form.display().unit).data()) + QStringLiteral("³");
    }
    static void figures(FactsForm& form, const Earthwork& object, const derive::EarthworkResult& made) {
        const auto& display = form.display();
        if (object.sort != EarthworkSort::Batter)
            form.fact(QObject::tr("First corner"), text(formatHeight(made.height, display)));
        if (made.ground) {
            form.fact(QObject::tr("Cut"), volume(form, made.volumes.cut));
            form.fact(QObject::tr("Fill"), volume(form, made.volumes.fill));
        }
        if (object.sort != EarthworkSort::Batter)
            form.fact(made.net > 0 ? QObject::tr("Earth missing") : QObject::tr("Earth left"),
                      volume(form, std::abs(made.net)));
        form.fact(QObject::tr("Daylight"), text(formatLength(made.batter.daylightLength, display)));
        form.fact(QObject::tr("Faces in plan"), text(formatArea(made.batter.planArea, display)));
        if (!made.batter.open.empty())
            form.fact(QObject::tr("Not reached"),
                      QObject::tr("along %1").arg(text(formatLength(made.batter.openLength(), display))));
    }
    static void slopes(FactsForm& form, ObjectId id, const Earthwork& object) {
        using operations::SlopeOf;
        const auto& f = object.form;
        form.heading(QObject::tr("Slopes"));
        form.typedEntry(
            QObject::tr("Cut and fill"), f.cut == f.fill ? text(f.cut) : QString(),
            [id](std::string typed) { return operations::setTypedSlope(id, SlopeOf::Both, typed); });
        form.typedEntry(QObject::tr("Cut"), text(f.cut), [id](std::string typed) {
            return operations::setTypedSlope(id, SlopeOf::Cut, typed);
        });
        form.typedEntry(QObject::tr("Fill"), text(f.fill), [id](std::string typed) {
            return operations::setTypedSlope(id, SlopeOf::Fill, typed);
        });
        form.typedEntry(QObject::tr("Berms"), text(earthwork::bermsText(f.berms)),
                        [id](std::string typed) { return operations::setTypedBerms(id, typed); });
        form.typedEntry(QObject::tr("Others from"), text(operations::changesText(f.changes)),
                        [id](std::string typed) { return operations::setTypedChanges(id, typed); });
        form.choice(QObject::tr("Outside corners"), {QObject::tr("mitre"), QObject::tr("round")},
                    f.corners == linework::OutsideCorner::Round ? 1 : 0, [id](const Document& d, int i) {
                        return document::changed<Earthwork>(d, id, [i](Earthwork& e) {
                            e.form.corners = static_cast<linework::OutsideCorner>(i);
                        });
                    });
        if (object.sort == EarthworkSort::Batter) {
            form.typedEntry(QObject::tr("Runs"), text(earthwork::targetText(f.target)),
                            [id](std::string typed) { return operations::setTypedTarget(id, typed); });
            form.typedEntry(QObject::tr("Stretch"),
                            object.stretch ? text(formatExact(object.stretch->from) + " to " +
                                                  formatExact(object.stretch->to))
                                           : QObject::tr("all"),
                            [id](std::string typed) { return operations::setTypedStretch(id, typed); });
            form.choice(QObject::tr("Side"), {QObject::tr("left"), QObject::tr("right")},
                        object.right ? 1 : 0, [id](const Document& d, int i) {
                            return document::changed<Earthwork>(d, id,
                                                                [i](Earthwork& e) { e.right = i == 1; });
                        });
        }
        form.objectChoice(
            QObject::tr("Ground"), operations::possibleGrounds(form.document()), object.ground,
            [id](const Document& d, ObjectId ground) {
                return document::changed<Earthwork>(d, id, [ground](Earthwork& e) { e.ground = ground; });
            },
            QObject::tr("none"));
        kinds(form, id);
    }
    static void kinds(FactsForm& form, ObjectId id) {
        const auto all = form.document().all<objects::BatterKind>();
        if (all.empty()) return;
        QStringList names{QObject::tr("choose")};
        for (const ObjectId kind : all) names << form.nameOf(kind);
        form.choiceOfMany(QObject::tr("Take the kind"), names, 0, [id, all](int i) {
            if (i == 0)
                return document::Edit([](const Document& d) -> Result<document::Edited> { return d; });
            return operations::takeBatterKind(id, all[static_cast<std::size_t>(i - 1)]);
        });
    }
    static void earth(FactsForm& form, ObjectId id, const Earthwork& object) {
        form.heading(QObject::tr("Earth"));
        const auto factor = [&](const QString& name, double value, double earthwork::Earth::*which) {
            form.typedEntry(name, text(formatExact(value)), [id, which](std::string typed) {
                return operations::changeEarthwork(id, [typed, which](Earthwork& e) -> Result<void> {
                    const auto figure = parseNumber(typed);
                    if (!figure) return badInput("'" + typed + "' is no figure; write it like 1.2");
                    e.earth.*which = *figure;
                    return {};
                });
            });
        };
        factor(QObject::tr("Swell of cut"), object.earth.swell, &earthwork::Earth::swell);
        factor(QObject::tr("Shrink of fill"), object.earth.shrink, &earthwork::Earth::shrink);
        auto* curve = new BalanceCurve(form.session(), id);
        form.row(curve);
        form.longEntry(QObject::tr("Balance, left over"),
                       [form, id](std::string typed) -> Result<document::LongEdit> {
                           const auto surplus = parseNumber(typed);
                           if (!surplus)
                               return badInput("'" + typed + "' is no volume; write 0 to use up all earth");
                           return operations::balanceEarthwork(form.session().results(), id, *surplus);
                       });
        auto* balance = new QPushButton(QObject::tr("Balance"));
        balance->setToolTip(QObject::tr("Lifts the edge until cut and fill come out, rules kept"));
        QObject::connect(balance, &QPushButton::clicked, balance, [form, id] {
            form.laterLong(QObject::tr("Balance %1").arg(form.nameOf(id)),
                           operations::balanceEarthwork(form.session().results(), id, 0));
        });
        form.row(balance);
    }
    static void stages(FactsForm& form, const earthwork::Storage& storage) {
        const auto& display = form.display();
        form.heading(QObject::tr("Stages"));
        form.fact(QObject::tr("Spills at"), text(formatHeight(storage.spill, display)));
        for (std::size_t i = 0; i < storage.stages.size(); i += 2) {
            const auto& s = storage.stages[i];
            form.fact(text(formatHeight(s.height, display)),
                      text(formatArea(s.area, display)) + QStringLiteral("   ") + volume(form, s.volume));
        }
    }
};

}  // namespace

template <>
const ObjectKind& kindOf<objects::Earthwork>() {
    static const EarthworkKind kind;
    return kind;
}

}  // namespace erdwerk::app
