// Facts of a surface: its sources, in order.

#include <QCheckBox>
#include <QComboBox>
#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <algorithm>

#include "app/kinds/all_kinds.h"
#include "app/kinds/current.h"
#include "app/kinds/surface_facts.h"
#include "core/objects/surface.h"
#include "core/operations/surfaces.h"
#include "core/terrain/build.h"

namespace erdwerk::app {

using document::Document;

namespace {

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

QWidget* onBox(const FactsForm& form, ObjectId id, const objects::Source& source) {
    const auto& document = form.document();
    auto* on = new QCheckBox(text(document.nameOf(source.object)));
    on->setChecked(source.on);
    on->setObjectName(QStringLiteral("source:") + text(document.nameOf(source.object)));
    on->setToolTip(QObject::tr("Off: the surface is built without it"));
    QObject::connect(on, &QCheckBox::toggled, on, [form, id, source](bool state) {
        auto next = source;
        next.on = state;
        form.later(state ? QObject::tr("Switch a source on") : QObject::tr("Switch a source off"),
                   operations::setSource(id, next));
    });
    return on;
}

QWidget* roleBox(const FactsForm& form, ObjectId id, const objects::Source& source) {
    const auto& document = form.document();
    if (!objects::isLineRole(source.role)) return new QLabel(roleText(source.role));
    auto* role = new QComboBox;
    role->setAccessibleName(QObject::tr("Role of %1").arg(text(document.nameOf(source.object))));
    role->setMinimumContentsLength(5);
    role->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    for (const auto r : objects::lineRoles) {
        role->addItem(roleText(r));
        if (r == source.role) role->setCurrentIndex(role->count() - 1);
    }
    QObject::connect(role, &QComboBox::activated, role, [form, id, source](int i) {
        auto next = source;
        next.role = objects::lineRoles[static_cast<std::size_t>(i)];
        form.later(QObject::tr("Set a source's role"), operations::setSource(id, next));
    });
    return role;
}

QWidget* ownHeightsBox(const FactsForm& form, ObjectId id, const objects::Source& source) {
    auto* own = new QCheckBox(QObject::tr("keeps its own heights"));
    own->setChecked(source.ownHeights);
    own->setStyleSheet(QStringLiteral("margin-left: 18px;"));
    QObject::connect(own, &QCheckBox::toggled, own, [form, id, source](bool state) {
        auto next = source;
        next.ownHeights = state;
        form.later(QObject::tr("Set whose heights a ring has"), operations::setSource(id, next));
    });
    return own;
}

/// Role, order, and out with it.
QWidget* placeOfSource(const FactsForm& form, ObjectId id, const objects::Source& source) {
    const auto& document = form.document();
    auto* row = new QWidget;
    auto* layout = new QHBoxLayout(row);
    layout->setContentsMargins(18, 0, 0, 4);
    layout->setSpacing(4);
    layout->addWidget(roleBox(form, id, source), 1);
    auto* up = smallButton(QStringLiteral("↑"), QObject::tr("Earlier in the order"));
    QObject::connect(up, &QPushButton::clicked, up, [form, id, source] {
        form.later(QObject::tr("Move a source up"), operations::moveSource(id, source.object, -1));
    });
    auto* remove =
        smallButton(QObject::tr("remove"),
                    QObject::tr("Remove %1 from the surface").arg(text(document.nameOf(source.object))));
    QObject::connect(remove, &QPushButton::clicked, remove, [form, id, source] {
        form.later(QObject::tr("Remove a source"), operations::removeSource(id, source.object));
    });
    layout->addWidget(up);
    layout->addWidget(remove);
    return row;
}

void addSourceRow(FactsForm& form, ObjectId id) {
    const auto& document = form.document();
    auto* add = new QComboBox;
    add->setObjectName(QStringLiteral("addSource"));
    add->setAccessibleName(QObject::tr("Add a source"));
    add->setMinimumContentsLength(8);
    add->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    add->addItem(QObject::tr("Add a source…"));
    const auto offered = operations::possibleSources(document, id);
    for (const auto& source : offered) {
        const auto& kind = kindOf(*document.find(source.object));
        add->addItem(QStringLiteral("%1   ·  %2").arg(form.nameOf(source.object), kind.noun()));
    }
    QObject::connect(add, &QComboBox::activated, add, [form, id, offered](int i) {
        if (i > 0)
            form.later(QObject::tr("Add a source"),
                       [id, source = offered[static_cast<std::size_t>(i - 1)]](const Document& d)
                           -> Result<document::Edited> { return operations::addSource(id, source)(d); });
    });
    form.row(add);
}

}  // namespace

QPushButton* smallButton(const QString& label, const QString& name) {
    auto* button = new QPushButton(label);
    button->setAccessibleName(name);
    button->setToolTip(name);
    button->setStyleSheet(QStringLiteral("padding: 0px 7px;"));
    return button;
}

void sourceFacts(FactsForm& form, ObjectId id) {
    const auto& document = form.document();
    const auto& definition = *document.get<objects::Surface>(id)->definition;
    form.heading(QObject::tr("Sources, in order"));
    if (definition.imported) form.fact(QObject::tr("Taken over"), QObject::tr("triangles from a file"));
    for (const auto& s : definition.sources) {
        form.row(onBox(form, id, s));
        form.row(placeOfSource(form, id, s));
        if (objects::isRing(s.role)) form.row(ownHeightsBox(form, id, s));
    }
    if (!definition.imported) addSourceRow(form, id);
    form.length(QObject::tr("Longest edge"), definition.maxEdge, 0, QObject::tr("off"),
                [id](const Document& d, double v) { return operations::setMaxEdge(id, v)(d); });
    form.oneTo(QObject::tr("Narrowest"), definition.narrowest, [id](const Document& d, double v) {
        return operations::changeDefinition(id, [v](auto& x) { x.narrowest = v; })(d);
    });
    form.choice(QObject::tr("At crossings"),
                {QObject::tr("the first's height"), QObject::tr("the higher"), QObject::tr("the lower"),
                 QObject::tr("the mean")},
                static_cast<int>(definition.onCrossing), [id](const Document& d, int i) {
                    return operations::changeDefinition(
                        id, [i](auto& x) { x.onCrossing = static_cast<terrain::CrossingRule>(i); })(d);
                });
}

void surfaceRole(FactsForm& form, const std::vector<ObjectId>& lines) {
    const ObjectId surface = currentSurface(form.session());
    const auto* payload = form.document().get<objects::Surface>(surface);
    if (payload == nullptr || lines.empty()) return;
    const auto& sources = payload->definition->sources;
    const auto sourceOf = [&](ObjectId line) {
        return std::find_if(sources.begin(), sources.end(),
                            [line](const auto& s) { return s.object == line; });
    };
    // Only where all of them are sources by themselves.
    for (const ObjectId line : lines)
        if (sourceOf(line) == sources.end()) return;
    const auto role = commonOf(lines, [&](ObjectId line) { return sourceOf(line)->role; });
    QStringList names;
    std::optional<int> at;
    for (const auto r : objects::lineRoles) {
        if (role && r == *role) at = static_cast<int>(names.size());
        names << roleText(r);
    }
    form.choiceOfMany(
        QObject::tr("Role in %1").arg(form.nameOf(surface)), names, at, [surface, lines](int i) {
            return operations::setRoles(surface, lines, objects::lineRoles[static_cast<std::size_t>(i)]);
        });
}

}  // namespace erdwerk::app
