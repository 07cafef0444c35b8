// Facts of a surface: figures, how it is shown, own edits, thinning and fit check.

#include <QCheckBox>
#include <QHBoxLayout>
#include <QPushButton>
#include <algorithm>
#include <numbers>

#include "app/kinds/surface_facts.h"
#include "core/derive/surface_result.h"
#include "core/objects/surface.h"
#include "core/operations/surfaces.h"
#include "core/terrain/own_edits.h"

namespace erdwerk::app {

using document::Document;

namespace {

constexpr double degree = std::numbers::pi / 180;

QString editText(const objects::SurfaceEdit& e, const Document& document) {
    const auto& display = document.settings().display;
    const auto at = [&](geometry::Vec2 p) { return text(formatPosition(p.x, p.y, display)); };
    switch (e.edit.kind) {
        case terrain::EditKind::FlipSide:
            return QObject::tr("side flipped at %1").arg(at(e.edit.at));
        case terrain::EditKind::RemoveTriangle:
            return QObject::tr("triangle removed at %1").arg(at(e.edit.at));
        case terrain::EditKind::RemovePoint:
            return QObject::tr("point removed at %1").arg(at(e.edit.at));
        case terrain::EditKind::AddPoint:
            return QObject::tr("point added at %1").arg(at(e.edit.to.plan()));
        case terrain::EditKind::MovePoint:
            return QObject::tr("point moved at %1").arg(at(e.edit.at));
        case terrain::EditKind::Raise:
            return e.edit.to.z < 0
                       ? QObject::tr("lowered by %1").arg(text(formatLength(-e.edit.to.z, display)))
                       : QObject::tr("raised by %1").arg(text(formatLength(e.edit.to.z, display)));
        case terrain::EditKind::TakeOver:
            return QObject::tr("takes over %1").arg(text(document.nameOf(e.surface)));
    }
    return {};
}

void thinning(FactsForm& form, ObjectId id) {
    const auto& document = form.document();
    const auto& definition = *document.get<objects::Surface>(id)->definition;
    if (!operations::hasDenseSources(document, id) && definition.tolerance <= 0) return;
    form.heading(QObject::tr("Thinned to"));
    form.length(QObject::tr("Tolerance"), definition.tolerance, 0, QObject::tr("off"),
                [id](const Document& d, double v) {
                    return operations::changeDefinition(id, [v](auto& x) { x.tolerance = v; })(d);
                });
    form.number(QObject::tr("Slope change °"), std::round(definition.slopeChange / degree * 1000) / 1000, 0,
                [id](const Document& d, double v) {
                    return operations::changeDefinition(id, [v](auto& x) { x.slopeChange = v * degree; })(d);
                });
    const auto* result = derive::Derived::in(form.derived().surfaces, id);
    if (result == nullptr || !result->thinned) {
        if (definition.tolerance <= 0)
            form.fact(QObject::tr("Now"), QObject::tr("all points of the source; a tolerance thins them"));
        return;
    }
    const auto& t = *result->thinned;
    const auto& display = document.settings().display;
    form.fact(QObject::tr("Points in"), QString::number(t.pointsIn));
    form.fact(QObject::tr("Points kept"), QObject::tr("%1   (%2 %)")
                                              .arg(t.kept)
                                              .arg(100.0 * static_cast<double>(t.kept) /
                                                       std::max<double>(1, static_cast<double>(t.pointsIn)),
                                                   0, 'f', 1));
    const QString unit = QStringLiteral(" ") + QString::fromUtf8(unitSymbol(display.unit).data());
    const QString proved = text(formatFixed(t.largestProved, 4)) + unit;
    form.fact(QObject::tr("Proof"),
              t.beyond == 0
                  ? QObject::tr("all checked, none more than %1 off").arg(proved)
                  : QObject::tr("%1 points are beyond the tolerance, by up to %2").arg(t.beyond).arg(proved));
    if (t.excused > 0)
        form.fact(QObject::tr("Beside lines"), QObject::tr("%1 points, where the line holds, up to %2 off")
                                                   .arg(t.excused)
                                                   .arg(text(formatFixed(t.largestDeviation, 4)) + unit));
}

void fitCheck(FactsForm& form, ObjectId id) {
    const auto& document = form.document();
    const auto fit = document.get<objects::Surface>(id)->fit;
    const auto offered = operations::denseObjects(document);
    if (offered.empty()) return;
    form.heading(QObject::tr("Fit check"));
    const auto change = [id](const Document& d, const std::function<void(objects::FitCheck&)>& edit) {
        return document::changed<objects::Surface>(d, id, [&](objects::Surface& s) { edit(s.fit); });
    };
    form.objectChoice(
        QObject::tr("Against"), offered, fit.source,
        [change](const Document& d, ObjectId other) { return change(d, [&](auto& f) { f.source = other; }); },
        QObject::tr("its own sources"));
    form.length(QObject::tr("Within"), fit.tolerance, 0.0001, {}, [change](const Document& d, double v) {
        return change(d, [v](auto& f) { f.tolerance = v; });
    });
    if (const auto* result = derive::Derived::in(form.derived().fits, id)) {
        form.fact(
            QObject::tr("Inside it"),
            QObject::tr("%1 %").arg(std::floor(result->figures.withinShare() * 10000) / 100, 0, 'f', 2));
        form.fact(QObject::tr("RMS"), text(formatFixed(result->figures.rms, 4)));
    }
}

void surfaceStyle(FactsForm& form, ObjectId id) {
    const auto style = form.document().get<objects::Surface>(id)->style;
    const auto restyle = [id](const Document& d, const std::function<void(objects::SurfaceStyle&)>& change) {
        return document::changed<objects::Surface>(d, id, [&](objects::Surface& s) { change(s.style); });
    };
    form.heading(QObject::tr("Shown as"));
    form.check(QObject::tr("Contours"), style.contours, [restyle](const Document& d, bool on) {
        return restyle(d, [on](auto& s) { s.contours = on; });
    });
    form.length(QObject::tr("Interval"), style.interval, 0.001, {}, [restyle](const Document& d, double v) {
        return restyle(d, [v](auto& s) { s.interval = v; });
    });
    form.number(QObject::tr("Index every"), style.indexEvery, 1, [restyle](const Document& d, double v) {
        return restyle(d, [v](auto& s) { s.indexEvery = static_cast<int>(v); });
    });
    form.check(QObject::tr("Rounded contours"), style.smooth, [restyle](const Document& d, bool on) {
        return restyle(d, [on](auto& s) { s.smooth = on; });
    });
    if (form.document().get<objects::Surface>(id)->definition->base)
        form.check(QObject::tr("Ground before, dashed"), style.before, [restyle](const Document& d, bool on) {
            return restyle(d, [on](auto& s) { s.before = on; });
        });
    form.check(QObject::tr("Hillshade"), style.hillshade, [restyle](const Document& d, bool on) {
        return restyle(d, [on](auto& s) { s.hillshade = on; });
    });
    form.check(QObject::tr("Height colours"), style.heightColours, [restyle](const Document& d, bool on) {
        return restyle(d, [on](auto& s) { s.heightColours = on; });
    });
    form.check(QObject::tr("Triangles"), style.triangles, [restyle](const Document& d, bool on) {
        return restyle(d, [on](auto& s) { s.triangles = on; });
    });
    form.choice(
        QObject::tr("Bands of"),
        {QObject::tr("nothing"), QObject::tr("height"), QObject::tr("slope"), QObject::tr("direction")},
        static_cast<int>(style.bands), [restyle](const Document& d, int i) {
            return restyle(d, [i](auto& s) { s.bands = static_cast<objects::Bands>(i); });
        });
    form.check(QObject::tr("Map of the fit check"), style.deviation, [restyle](const Document& d, bool on) {
        return restyle(d, [on](auto& s) { s.deviation = on; });
    });
}

void ownEdits(FactsForm& form, ObjectId id) {
    const auto& document = form.document();
    const auto& edits = document.get<objects::Surface>(id)->definition->edits;
    if (edits.empty()) return;
    form.heading(QObject::tr("Own edits, in order"));
    const auto* result = derive::Derived::in(form.derived().surfaces, id);
    for (std::size_t k = 0; k < edits.size(); ++k) {
        auto* on = new QCheckBox(editText(edits[k], document));
        on->setChecked(edits[k].on);
        // The edit itself, wherever it stands in the list by then.
        const auto change = [form, id, edit = edits[k]](const QString& what, std::optional<bool> state) {
            form.later(what, operations::changeDefinition(id, [edit, state](auto& definition) {
                           const auto it = std::find(definition.edits.begin(), definition.edits.end(), edit);
                           if (it == definition.edits.end()) return;
                           if (state)
                               it->on = *state;
                           else
                               definition.edits.erase(it);
                       }));
        };
        QObject::connect(on, &QCheckBox::toggled, on,
                         [change](bool state) { change(QObject::tr("Switch an own edit"), state); });
        auto* remove = smallButton(QStringLiteral("×"), QObject::tr("Remove this edit"));
        QObject::connect(remove, &QPushButton::clicked, remove,
                         [change] { change(QObject::tr("Remove an own edit"), std::nullopt); });
        auto* row = new QWidget;
        auto* layout = new QHBoxLayout(row);
        layout->setContentsMargins(0, 0, 0, 0);
        layout->addWidget(on, 1);
        layout->addWidget(remove);
        form.row(row);
        if (result == nullptr) continue;
        for (const auto& [at, why] : result->editProblems)
            if (at == k) form.fact(QObject::tr("Not done"), text(why));
    }
}

}  // namespace

void surfaceFacts(FactsForm& form, ObjectId id) {
    const auto& document = form.document();
    const auto& display = document.settings().display;
    form.heading(text(document.nameOf(id)));
    const auto* result = derive::Derived::in(form.derived().surfaces, id);
    if (result != nullptr && result->locator) {
        const auto& f = result->figures;
        form.fact(QObject::tr("Points"), QString::number(result->points));
        form.fact(QObject::tr("Triangles"), QString::number(f.triangles));
        form.fact(QObject::tr("Heights"),
                  text(formatHeight(f.min.z, display) + " to " + formatHeight(f.max.z, display)));
        form.fact(QObject::tr("Plan area"), text(formatArea(f.planArea, display)));
        form.fact(QObject::tr("Surface area"), text(formatArea(f.surfaceArea, display)));
        form.fact(QObject::tr("Crossings"), QString::number(result->crossings.size()));
    } else if (result != nullptr) {
        form.fact(QObject::tr("Not built"), text(result->problem));
    }
    thinning(form, id);
    sourceFacts(form, id);
    ownEdits(form, id);
    fitCheck(form, id);
    surfaceStyle(form, id);
}

}  // namespace erdwerk::app
