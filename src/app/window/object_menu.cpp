#include "app/window/object_menu.h"

#include <QMenu>
#include <map>

#include "app/kinds/all_kinds.h"
#include "app/panels/contents.h"
#include "app/plan/plan_parts.h"
#include "app/plan/plan_view.h"
#include "app/plan/tool.h"
#include "app/scene/scene_view.h"
#include "app/sheet/sheet_canvas.h"
#include "app/sheet/sheet_page.h"
#include "app/window/stage_bar.h"
#include "app/window/tool_in_hand.h"
#include "app/window/workbench.h"

namespace erdwerk::app {

namespace {

void addItem(QMenu& menu, ActionList& actions, const Action& a) {
    const QString reason = a.whyNot ? a.whyNot() : QString();
    auto* item = menu.addAction(a.icon, a.text);
    if (!a.key.isEmpty())
        item->setText(a.text + QLatin1Char('\t') + a.key.toString(QKeySequence::NativeText));
    item->setEnabled(reason.isEmpty());
    item->setToolTip(reason.isEmpty() ? a.help : reason);
    item->setObjectName(a.id);
    // What runs may turn the event loop itself: when the menu is gone.
    QObject::connect(
        item, &QAction::triggered, &actions, [&actions, id = a.id] { actions.run(id); },
        Qt::QueuedConnection);
}

}  // namespace

ObjectMenu::ObjectMenu(Workbench& work, ToolInHand& inHand)
    : work_(work), session_(work.session), actions_(work.actions), inHand_(inHand) {
    connect(work_.plan, &PlanView::menuWanted, this, &ObjectMenu::show);
    connect(work_.contents, &Contents::menuWanted, this, [this](QPoint at) { show(at, std::nullopt); });
    connect(work_.sheetPage->canvas(), &SheetCanvas::menuWanted, this, &ObjectMenu::show);
    connect(work_.scene, &SceneView::menuWanted, this,
            [this](QPoint at, std::optional<geometry::Vec2> place) {
                std::optional<Ref> under;
                if (place) {
                    ViewTransform view;
                    view.centre = *place;
                    view.scale = work_.scene->planView().scale;
                    view.size = QSizeF(100, 100);
                    const auto found = snapsAt(*session_.snapshot(), view, planLayers(), QPointF(50, 50), 9);
                    if (!found.empty()) under = found.front().ref;
                }
                show(at, under);
            });
}

QMenu* ObjectMenu::ofSelection() {
    auto* menu = new QMenu(work_.window);
    menu->setObjectName(QStringLiteral("objectMenu"));
    menu->setToolTipsVisible(true);
    if (inHand_.tool()) {
        addToolItems(*menu);
        return menu;
    }
    const auto ids = work_.selectedObjects();
    if (const auto object = ids.empty() ? nullptr : session_.document().find(ids.front())) {
        addObjectItems(*menu, *object);
        return menu;
    }
    for (const char* id : {"select-all", "fit", "twin", "twin-plan"})
        addItem(*menu, actions_, *actions_.find(QString::fromLatin1(id)));
    menu->addMenu(work_.partsMenu);
    return menu;
}

void ObjectMenu::addToolItems(QMenu& menu) {
    const auto add = [&](const QString& text, const QString& key, auto run) {
        connect(menu.addAction(text + QLatin1Char('\t') + key), &QAction::triggered, this, run,
                Qt::QueuedConnection);
    };
    add(tr("Done"), tr("Enter"), [this] {
        if (inHand_.tool()) inHand_.tool()->complete();
    });
    add(tr("Take back the last step"), tr("Backspace"), [this] {
        if (inHand_.tool()) inHand_.tool()->stepBack();
    });
    add(tr("End %1").arg(inHand_.tool()->title()), tr("Esc"), [this] { inHand_.end(); });
}

void ObjectMenu::addObjectItems(QMenu& menu, const objects::Object& object) {
    auto* title =
        menu.addSection(QStringLiteral("%1  ·  %2").arg(work_.nameOf(object.id), kindOf(object).noun()));
    title->setEnabled(false);
    std::vector<const Action*> common;
    std::map<Stage, std::vector<const Action*>> others;
    for (const Action& a : actions_.all()) {
        if (!a.suits || !a.suits(object)) continue;
        if (!a.stage)
            common.push_back(&a);
        else if (*a.stage == work_.stageBar->stage())
            addItem(menu, actions_, a);
        else
            others[*a.stage].push_back(&a);
    }
    // What belongs to other stages stands one step further away.
    for (const auto& [stage, list] : others) {
        QMenu* more = menu.addMenu(stageName(stage));
        for (const Action* a : list) addItem(*more, actions_, *a);
    }
    menu.addSeparator();
    for (const Action* a : common) addItem(menu, actions_, *a);
}

void ObjectMenu::show(QPoint at, std::optional<Ref> under) {
    const auto& now = session_.selection();
    if (!inHand_.tool() && under) {
        // What lies under the cursor is meant, with the part that lies there; among several, all of them.
        if (!session_.selection().holds(under->object) || (now.size() == 1 && !(now.front() == *under)))
            session_.selection().set({*under});
    } else if (!inHand_.tool() && work_.plan->hasFocus() && work_.plan->underMouse()) {
        session_.selection().set({});
    }
    QMenu* menu = ofSelection();
    menu->setAttribute(Qt::WA_DeleteOnClose);
    menu->popup(at);
}

}  // namespace erdwerk::app

#include "moc_object_menu.cpp"
