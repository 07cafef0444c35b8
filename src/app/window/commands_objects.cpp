// What can be done with the objects that are selected, as commands and as the menu under the cursor.

#include <QAbstractItemView>
#include <QApplication>
#include <QInputDialog>
#include <QMenu>

#include "app/kinds/all_kinds.h"
#include "app/window/main_window.h"
#include "core/operations/groups.h"
#include "core/operations/objects.h"

namespace erdwerk::app {

namespace {

std::vector<ObjectId> selectedObjects(const Session& session) {
    std::vector<ObjectId> out;
    for (const Ref& r : session.selection())
        if (std::find(out.begin(), out.end(), r.object) == out.end()) out.push_back(r.object);
    return out;
}

}  // namespace

void MainWindow::objectCommands() {
    const QString edit = tr("Edit");
    const auto needSelection = [this] {
        return session_.selection().empty() ? tr("select something first") : QString();
    };
    command(
        "select-all", tr("Select all"), tr("Selects everything that the plan shows"),
        theme::icon(QStringLiteral("select")), edit, QKeySequence::SelectAll,
        [this] {
            if (auto* list = qobject_cast<QAbstractItemView*>(QApplication::focusWidget()))
                return list->selectAll();
            std::vector<Ref> refs;
            for (const auto& [id, object] : session_.document().objects())
                if (!kindOf(*object).passes().empty() && !session_.document().hidden(*object))
                    refs.push_back({id, std::nullopt});
            session_.select(std::move(refs));
        },
        [this] { return tools::anOpenProject(session_); });
    command(
        "zoom-to", tr("Zoom to the selection"), tr("Shows what is selected as large as it fits"),
        theme::icon(QStringLiteral("fit")), tr("View"), QKeySequence(QStringLiteral("Ctrl+G")),
        [this] { showSelected(); }, needSelection);
    command(
        "show-hide", tr("Show or hide"), tr("Hides what is selected, or shows it again"),
        theme::icon(QStringLiteral("eye")), edit, QKeySequence(QStringLiteral("Ctrl+H")),
        [this] { contents_->pressEyes(selectedObjects(session_)); },
        [this] {
            const auto ids = selectedObjects(session_);
            const bool any = std::any_of(ids.begin(), ids.end(), [this](ObjectId id) {
                const auto object = session_.document().find(id);
                return object && kindOf(*object).canHide();
            });
            return any ? QString() : tr("select something that the views show first");
        });
    command(
        "rename", tr("Rename…"), tr("Gives the selected object another name"),
        theme::icon(QStringLiteral("label-style")), edit, QKeySequence(QStringLiteral("F2")),
        [this] { renameSelected(); },
        [this] { return selectedObjects(session_).size() == 1 ? QString() : tr("select one object first"); });
    command(
        "new-group", tr("New group of these"), tr("Puts what is selected into a group of its own"),
        theme::icon(QStringLiteral("new-group")), edit, QKeySequence(QStringLiteral("Ctrl+Shift+G")),
        [this] {
            const auto ids = selectedObjects(session_);
            session_.edit(tr("Group %1").arg(namesOf(ids)), operations::newGroup(ids));
        },
        needSelection);
    for (const char* id : {"zoom-to", "show-hide", "rename", "new-group", "delete"})
        actions_.offerFor(QString::fromLatin1(id), [](const objects::Object&) { return true; });
}

void MainWindow::renameSelected() {
    // In place, where a list or table has the keys.
    if (auto* list = qobject_cast<QAbstractItemView*>(QApplication::focusWidget()))
        return list->edit(list->currentIndex());
    const ObjectId id = session_.selection().front().object;
    bool done = false;
    const QString name =
        QInputDialog::getText(this, tr("Rename"), tr("Name"), QLineEdit::Normal, nameOf(id), &done).trimmed();
    if (!done || name.isEmpty()) return;
    session_.edit(tr("Rename %1").arg(nameOf(id)), operations::rename(id, name.toStdString()));
}

QString MainWindow::namesOf(const std::vector<ObjectId>& ids) const {
    return ids.size() == 1 ? nameOf(ids.front()) : tr("%1 things").arg(ids.size());
}

void MainWindow::showSelected() {
    geometry::Box box;
    for (const ObjectId id : selectedObjects(session_))
        if (const auto object = session_.derived().document.find(id))
            kindOf(*object).bounds(session_.derived(), id, box);
    if (!box.empty()) plan_->fitTo(box.grown(std::max(box.width(), box.height()) < 1 ? 10 : 0));
}

// ---- the menu under the cursor

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

void MainWindow::addToolItems(QMenu& menu) {
    const auto add = [&](const QString& text, const QString& key, auto run) {
        connect(menu.addAction(text + QLatin1Char('\t') + key), &QAction::triggered, this, run,
                Qt::QueuedConnection);
    };
    add(tr("Done"), tr("Enter"), [this] {
        if (tool_) tool_->complete();
    });
    add(tr("Take back the last step"), tr("Backspace"), [this] {
        if (tool_) tool_->stepBack();
    });
    add(tr("End %1").arg(tool_->title()), tr("Esc"), [this] { endTool(); });
}

void MainWindow::addObjectItems(QMenu& menu, const objects::Object& object) {
    auto* title = menu.addSection(QStringLiteral("%1  ·  %2").arg(nameOf(object.id), kindOf(object).noun()));
    title->setEnabled(false);
    std::vector<const Action*> common;
    std::map<Stage, std::vector<const Action*>> others;
    for (const Action& a : actions_.all()) {
        if (!a.suits || !a.suits(object)) continue;
        if (!a.stage)
            common.push_back(&a);
        else if (*a.stage == stageBar_->stage())
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

QMenu* MainWindow::menuOfSelection() {
    auto* menu = new QMenu(this);
    menu->setObjectName(QStringLiteral("objectMenu"));
    menu->setToolTipsVisible(true);
    if (tool_) {
        addToolItems(*menu);
        return menu;
    }
    const auto ids = selectedObjects(session_);
    if (const auto object = ids.empty() ? nullptr : session_.document().find(ids.front())) {
        addObjectItems(*menu, *object);
        return menu;
    }
    for (const char* id : {"select-all", "fit", "twin", "twin-plan"})
        addItem(*menu, actions_, *actions_.find(QString::fromLatin1(id)));
    menu->addMenu(partsMenu_);
    return menu;
}

void MainWindow::showMenu(QPoint at, std::optional<Ref> under) {
    const auto& now = session_.selection();
    if (!tool_ && under) {
        // What lies under the cursor is meant, with the part that lies there; among several, all of them.
        if (!session_.isSelected(under->object) || (now.size() == 1 && !(now.front() == *under)))
            session_.select({*under});
    } else if (!tool_ && plan_->hasFocus() && plan_->underMouse()) {
        session_.select({});
    }
    QMenu* menu = menuOfSelection();
    menu->setAttribute(Qt::WA_DeleteOnClose);
    menu->popup(at);
}

}  // namespace erdwerk::app
