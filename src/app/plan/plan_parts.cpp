#include "app/plan/plan_parts.h"

#include <QKeyEvent>
#include <QMouseEvent>

#include "core/operations/show.h"

namespace erdwerk::app {

using objects::PlanPart;

QString planPartText(PlanPart part) {
    switch (part) {
        case PlanPart::PointMarks:
            return QObject::tr("Points");
        case PlanPart::PointNumbers:
            return QObject::tr("Point numbers");
        case PlanPart::PointHeights:
            return QObject::tr("Point heights");
        case PlanPart::Linework:
            return QObject::tr("3D lines");
        case PlanPart::Contours:
            return QObject::tr("Contours");
        case PlanPart::ContourHeights:
            return QObject::tr("Contour heights");
        case PlanPart::Triangles:
            return QObject::tr("Triangles");
        case PlanPart::GroundColours:
            return QObject::tr("Ground colours and shade");
        case PlanPart::Clouds:
            return QObject::tr("Clouds and rasters");
        case PlanPart::Backdrops:
            return QObject::tr("Backdrops");
        case PlanPart::Labels:
            return QObject::tr("Labels");
        case PlanPart::GridCrosses:
            break;
    }
    return QObject::tr("Grid crosses");
}

PartsMenu::PartsMenu(Session& session, QWidget* parent)
    : QMenu(QObject::tr("What the plan shows"), parent), session_(session) {
    for (const PlanPart part : objects::allPlanParts) {
        auto* item = addAction(planPartText(part));
        item->setCheckable(true);
        item->setData(static_cast<int>(part));
        connect(item, &QAction::triggered, this, [this, part](bool on) {
            session_.edit(
                (on ? tr("Show in the plan: %1") : tr("Leave out of the plan: %1")).arg(planPartText(part)),
                operations::setPlanPart(part, on));
        });
    }
    connect(&session_, &Session::documentChanged, this, &PartsMenu::refresh);
    refresh();
}

void PartsMenu::refresh() {
    const auto& off = session_.document().shown().off;
    for (QAction* item : actions()) {
        item->setChecked(off.count(static_cast<PlanPart>(item->data().toInt())) == 0);
        item->setEnabled(session_.isOpen());
    }
}

void PartsMenu::mouseReleaseEvent(QMouseEvent* event) {
    QAction* item = actionAt(event->position().toPoint());
    if (item == nullptr || !item->isEnabled()) return QMenu::mouseReleaseEvent(event);
    item->trigger();
}

void PartsMenu::keyPressEvent(QKeyEvent* event) {
    if (event->key() == Qt::Key_Space && activeAction() != nullptr) return activeAction()->trigger();
    QMenu::keyPressEvent(event);
}

}  // namespace erdwerk::app

#include "moc_plan_parts.cpp"
