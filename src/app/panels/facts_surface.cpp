// Facts of a surface: figures, how it is shown, its sources, own edits, thinning and fit check.

#include <QCheckBox>
#include <QComboBox>
#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <algorithm>
#include <numbers>

#include "app/panels/facts.h"
#include "core/operations/edit.h"

namespace erdwerk::app {

using document::Document;

namespace {

constexpr double degree = std::numbers::pi / 180;

QString text(const std::string& s) {
    return QString::fromStdString(s);
}

QString roleText(objects::Role role) {
    switch (role) {
        case objects::Role::Points:
            return QObject::tr("points");
        case objects::Role::Cloud:
            return QObject::tr("cloud");
        case objects::Role::Raster:
            return QObject::tr("raster");
        case objects::Role::Breakline:
            return QObject::tr("breakline");
        case objects::Role::Contour:
            return QObject::tr("contour");
        case objects::Role::Edge:
            return QObject::tr("edge");
        case objects::Role::Opening:
            return QObject::tr("opening");
        case objects::Role::Island:
            return QObject::tr("island");
    }
    return {};
}

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

QPushButton* smallButton(const QString& label, const QString& name) {
    auto* button = new QPushButton(label);
    button->setAccessibleName(name);
    button->setToolTip(name);
    button->setStyleSheet(QStringLiteral("padding: 0px 7px;"));
    return button;
}

}  // namespace

void Facts::surface(ObjectId id) {
    const auto& document = session_.document();
    const auto& display = document.settings().display;
    heading(text(document.nameOf(id)));
    const auto* result = derive::Derived::in(session_.derived().surfaces, id);
    if (result != nullptr && result->locator) {
        const auto& f = result->figures;
        fact(tr("Points"), QString::number(result->points));
        fact(tr("Triangles"), QString::number(f.triangles));
        fact(tr("Heights"), text(formatHeight(f.min.z, display) + " to " + formatHeight(f.max.z, display)));
        fact(tr("Plan area"), text(formatArea(f.planArea, display)));
        fact(tr("Surface area"), text(formatArea(f.surfaceArea, display)));
        fact(tr("Crossings"), QString::number(result->crossings.size()));
    } else if (result != nullptr) {
        fact(tr("Not built"), text(result->problem));
    }
    thinning(id);
    sources(id);
    ownEdits(id);
    fitCheck(id);
    surfaceStyle(id);
}

void Facts::thinning(ObjectId id) {
    const auto& document = session_.document();
    const auto& definition = *document.get<objects::Surface>(id)->definition;
    const bool dense = std::any_of(definition.sources.begin(), definition.sources.end(), [&](const auto& s) {
        return document.template get<objects::Points>(s.object) == nullptr &&
               document.template get<objects::Line>(s.object) == nullptr;
    });
    if (!dense && definition.tolerance <= 0) return;
    heading(tr("Thinned to"));
    number(tr("Tolerance"), definition.tolerance, 0, [id](const Document& d, double v) {
        return operations::changeDefinition(d, id, [v](auto& x) { x.tolerance = v; });
    });
    number(tr("Slope change °"), std::round(definition.slopeChange / degree * 1000) / 1000, 0,
           [id](const Document& d, double v) {
               return operations::changeDefinition(d, id, [v](auto& x) { x.slopeChange = v * degree; });
           });
    const auto* result = derive::Derived::in(session_.derived().surfaces, id);
    if (result == nullptr || !result->thinned) {
        if (definition.tolerance <= 0)
            fact(tr("Now"), tr("all points of the source; a tolerance thins them"));
        return;
    }
    const auto& t = *result->thinned;
    const auto& display = document.settings().display;
    fact(tr("Points in"), QString::number(t.pointsIn));
    fact(tr("Points kept"),
         tr("%1   (%2 %)")
             .arg(t.kept)
             .arg(100.0 * static_cast<double>(t.kept) / std::max<double>(1, static_cast<double>(t.pointsIn)),
                  0, 'f', 1));
    const QString unit = QStringLiteral(" ") + QString::fromUtf8(unitSymbol(display.unit).data());
    const QString proved = text(formatFixed(t.largestProved, 4)) + unit;
    fact(tr("Proof"), t.beyond == 0
                          ? tr("all checked, none more than %1 off").arg(proved)
                          : tr("%1 points are beyond the tolerance, by up to %2").arg(t.beyond).arg(proved));
    if (t.excused > 0)
        fact(tr("Beside lines"), tr("%1 points, where the line holds, up to %2 off")
                                     .arg(t.excused)
                                     .arg(text(formatFixed(t.largestDeviation, 4)) + unit));
}

void Facts::fitCheck(ObjectId id) {
    const auto& document = session_.document();
    const auto fit = document.get<objects::Surface>(id)->fit;
    std::vector<ObjectId> ids{ObjectId{}};
    QStringList names{tr("its own sources")};
    int at = 0;
    const auto offer = [&](const std::vector<ObjectId>& more) {
        for (const ObjectId other : more) {
            if (other == fit.source) at = static_cast<int>(ids.size());
            ids.push_back(other);
            names << text(document.nameOf(other));
        }
    };
    offer(document.all<objects::Cloud>());
    offer(document.all<objects::HeightRaster>());
    if (ids.size() == 1) return;
    heading(tr("Fit check"));
    const auto change = [id](const Document& d, const std::function<void(objects::FitCheck&)>& edit) {
        return document::changed<objects::Surface>(d, id, [&](objects::Surface& s) { edit(s.fit); });
    };
    choice(tr("Against"), names, at, [change, ids](const Document& d, int i) {
        return change(d, [&](auto& f) { f.source = ids[static_cast<std::size_t>(i)]; });
    });
    number(tr("Within"), fit.tolerance, 0.0001,
           [change](const Document& d, double v) { return change(d, [v](auto& f) { f.tolerance = v; }); });
    if (const auto* result = derive::Derived::in(session_.derived().fits, id)) {
        fact(tr("Inside it"),
             tr("%1 %").arg(std::floor(result->figures.withinShare() * 10000) / 100, 0, 'f', 2));
        fact(tr("RMS"), text(formatFixed(result->figures.rms, 4)));
    }
}

void Facts::surfaceStyle(ObjectId id) {
    const auto style = session_.document().get<objects::Surface>(id)->style;
    const auto restyle = [id](const Document& d, const std::function<void(objects::SurfaceStyle&)>& change) {
        return document::changed<objects::Surface>(d, id, [&](objects::Surface& s) { change(s.style); });
    };
    heading(tr("Shown as"));
    check(tr("Contours"), style.contours,
          [restyle](const Document& d, bool on) { return restyle(d, [on](auto& s) { s.contours = on; }); });
    number(tr("Interval"), style.interval, 0.001,
           [restyle](const Document& d, double v) { return restyle(d, [v](auto& s) { s.interval = v; }); });
    number(tr("Index every"), style.indexEvery, 1, [restyle](const Document& d, double v) {
        return restyle(d, [v](auto& s) { s.indexEvery = static_cast<int>(v); });
    });
    check(tr("Rounded contours"), style.smooth,
          [restyle](const Document& d, bool on) { return restyle(d, [on](auto& s) { s.smooth = on; }); });
    check(tr("Hillshade"), style.hillshade,
          [restyle](const Document& d, bool on) { return restyle(d, [on](auto& s) { s.hillshade = on; }); });
    check(tr("Height colours"), style.heightColours, [restyle](const Document& d, bool on) {
        return restyle(d, [on](auto& s) { s.heightColours = on; });
    });
    check(tr("Triangles"), style.triangles,
          [restyle](const Document& d, bool on) { return restyle(d, [on](auto& s) { s.triangles = on; }); });
    choice(tr("Bands of"), {tr("nothing"), tr("height"), tr("slope"), tr("direction")},
           static_cast<int>(style.bands), [restyle](const Document& d, int i) {
               return restyle(d, [i](auto& s) { s.bands = static_cast<objects::Bands>(i); });
           });
    check(tr("Map of the fit check"), style.deviation,
          [restyle](const Document& d, bool on) { return restyle(d, [on](auto& s) { s.deviation = on; }); });
}

void Facts::sourceRow(ObjectId id, const objects::Source& source) {
    const auto& document = session_.document();
    auto* on = new QCheckBox(text(document.nameOf(source.object)));
    on->setChecked(source.on);
    on->setObjectName(QStringLiteral("source:") + text(document.nameOf(source.object)));
    on->setToolTip(tr("Off: the surface is built without it"));
    connect(on, &QCheckBox::toggled, this, [this, id, source](bool state) {
        auto next = source;
        next.on = state;
        later(state ? tr("Switch a source on") : tr("Switch a source off"),
              [id, next](const Document& d) -> Result<document::Edited> {
                  return operations::setSource(d, id, next);
              });
    });
    form_->addRow(on);
    auto* row = new QWidget;
    auto* layout = new QHBoxLayout(row);
    layout->setContentsMargins(18, 0, 0, 4);
    layout->setSpacing(4);
    const bool isLine = document.get<objects::Line>(source.object) != nullptr ||
                        document.get<objects::Group>(source.object) != nullptr;
    if (isLine) {
        auto* role = new QComboBox;
        role->setAccessibleName(tr("Role of %1").arg(text(document.nameOf(source.object))));
        role->setMinimumContentsLength(5);
        role->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
        for (const auto r : objects::lineRoles) {
            role->addItem(roleText(r));
            if (r == source.role) role->setCurrentIndex(role->count() - 1);
        }
        connect(role, &QComboBox::activated, this, [this, id, source](int i) {
            auto next = source;
            next.role = objects::lineRoles[static_cast<std::size_t>(i)];
            later(tr("Set a source's role"), [id, next](const Document& d) -> Result<document::Edited> {
                return operations::setSource(d, id, next);
            });
        });
        layout->addWidget(role, 1);
    } else {
        layout->addWidget(new QLabel(roleText(source.role)), 1);
    }
    auto* up = smallButton(QStringLiteral("↑"), tr("Earlier in the order"));
    connect(up, &QPushButton::clicked, this, [this, id, source] {
        later(tr("Move a source up"), [id, source](const Document& d) -> Result<document::Edited> {
            return operations::moveSource(d, id, source.object, -1);
        });
    });
    auto* remove =
        smallButton(tr("remove"), tr("Remove %1 from the surface").arg(text(document.nameOf(source.object))));
    connect(remove, &QPushButton::clicked, this, [this, id, source] {
        later(tr("Remove a source"), [id, source](const Document& d) -> Result<document::Edited> {
            return operations::removeSource(d, id, source.object);
        });
    });
    layout->addWidget(up);
    layout->addWidget(remove);
    form_->addRow(row);
    const bool ring = objects::isRing(source.role);
    if (!ring) return;
    auto* own = new QCheckBox(tr("keeps its own heights"));
    own->setChecked(source.ownHeights);
    own->setStyleSheet(QStringLiteral("margin-left: 18px;"));
    connect(own, &QCheckBox::toggled, this, [this, id, source](bool state) {
        auto next = source;
        next.ownHeights = state;
        later(tr("Set whose heights a ring has"), [id, next](const Document& d) -> Result<document::Edited> {
            return operations::setSource(d, id, next);
        });
    });
    form_->addRow(own);
}

void Facts::addSourceRow(ObjectId id) {
    const auto& document = session_.document();
    auto* add = new QComboBox;
    add->setObjectName(QStringLiteral("addSource"));
    add->setAccessibleName(tr("Add a source"));
    add->setMinimumContentsLength(8);
    add->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    add->addItem(tr("Add a source…"));
    std::vector<objects::Source> offered{{}};
    for (const auto& [other, object] : document.objects()) {
        if (operations::hasSource(document, id, other)) continue;
        objects::Source source{other, objects::Role::Breakline};
        if (std::holds_alternative<objects::Points>(object->payload))
            source.role = objects::Role::Points;
        else if (std::holds_alternative<objects::Cloud>(object->payload))
            source.role = objects::Role::Cloud;
        else if (std::holds_alternative<objects::HeightRaster>(object->payload))
            source.role = objects::Role::Raster;
        else if (!std::holds_alternative<objects::Line>(object->payload) &&
                 !std::holds_alternative<objects::Group>(object->payload))
            continue;
        const bool group = std::holds_alternative<objects::Group>(object->payload);
        add->addItem((group ? tr("group %1") : QStringLiteral("%1")).arg(text(object->name)));
        offered.push_back(source);
    }
    connect(add, &QComboBox::activated, this, [this, id, offered](int i) {
        if (i > 0)
            later(tr("Add a source"),
                  [id, source = offered[static_cast<std::size_t>(i)]](const Document& d)
                      -> Result<document::Edited> { return operations::addSource(d, id, source); });
    });
    form_->addRow(add);
}

void Facts::sources(ObjectId id) {
    const auto& document = session_.document();
    const auto& definition = *document.get<objects::Surface>(id)->definition;
    heading(tr("Sources, in order"));
    if (definition.imported) fact(tr("Taken over"), tr("triangles from a file"));
    for (const auto& s : definition.sources) sourceRow(id, s);
    if (!definition.imported) addSourceRow(id);
    number(tr("Longest edge"), definition.maxEdge, 0,
           [id](const Document& d, double v) { return operations::setMaxEdge(d, id, v); });
    number(tr("Narrowest"), definition.narrowest, 0, [id](const Document& d, double v) {
        return operations::changeDefinition(d, id, [v](auto& x) { x.narrowest = v; });
    });
    choice(tr("At crossings"), {tr("the first's height"), tr("the higher"), tr("the lower"), tr("the mean")},
           static_cast<int>(definition.onCrossing), [id](const Document& d, int i) {
               return operations::changeDefinition(
                   d, id, [i](auto& x) { x.onCrossing = static_cast<terrain::CrossingRule>(i); });
           });
}

void Facts::ownEdits(ObjectId id) {
    const auto& document = session_.document();
    const auto& edits = document.get<objects::Surface>(id)->definition->edits;
    if (edits.empty()) return;
    heading(tr("Own edits, in order"));
    const auto* result = derive::Derived::in(session_.derived().surfaces, id);
    for (std::size_t k = 0; k < edits.size(); ++k) {
        auto* on = new QCheckBox(editText(edits[k], document));
        on->setChecked(edits[k].on);
        // The edit itself, wherever it stands in the list by then.
        const auto change = [this, id, edit = edits[k]](const QString& what, std::optional<bool> state) {
            later(what, [id, edit, state](const Document& d) -> Result<document::Edited> {
                return operations::changeDefinition(d, id, [&](auto& definition) {
                    const auto it = std::find(definition.edits.begin(), definition.edits.end(), edit);
                    if (it == definition.edits.end()) return;
                    if (state)
                        it->on = *state;
                    else
                        definition.edits.erase(it);
                });
            });
        };
        connect(on, &QCheckBox::toggled, this,
                [change](bool state) { change(tr("Switch an own edit"), state); });
        auto* remove = smallButton(QStringLiteral("×"), tr("Remove this edit"));
        connect(remove, &QPushButton::clicked, this,
                [change] { change(tr("Remove an own edit"), std::nullopt); });
        auto* row = new QWidget;
        auto* layout = new QHBoxLayout(row);
        layout->setContentsMargins(0, 0, 0, 0);
        layout->addWidget(on, 1);
        layout->addWidget(remove);
        form_->addRow(row);
        if (result == nullptr) continue;
        for (const auto& [at, why] : result->editProblems)
            if (at == k) fact(tr("Not done"), text(why));
    }
}

}  // namespace erdwerk::app
