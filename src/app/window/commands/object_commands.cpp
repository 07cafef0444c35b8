#include "app/window/commands/object_commands.h"

#include <QAbstractItemView>
#include <QApplication>
#include <QInputDialog>

#include "app/base/theme.h"
#include "app/kinds/all_kinds.h"
#include "app/panels/contents.h"
#include "app/plan/plan_view.h"
#include "app/window/workbench.h"
#include "core/operations/groups.h"
#include "core/operations/objects.h"

namespace erdwerk::app {

ObjectCommands::ObjectCommands(Workbench& work) : CommandSet(work) {
    add();
}

void ObjectCommands::add() {
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
            session_.selection().set(std::move(refs));
        },
        anOpenProject());
    command(
        "zoom-to", tr("Zoom to the selection"), tr("Shows what is selected as large as it fits"),
        theme::icon(QStringLiteral("fit")), tr("View"), QKeySequence(QStringLiteral("Ctrl+G")),
        [this] { work_.showSelected(); }, needSelection);
    command(
        "show-hide", tr("Show or hide"), tr("Hides what is selected, or shows it again"),
        theme::icon(QStringLiteral("eye")), edit, QKeySequence(QStringLiteral("Ctrl+H")),
        [this] { work_.contents->pressEyes(work_.selectedObjects()); },
        [this] {
            const auto ids = work_.selectedObjects();
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
        [this] { return work_.selectedObjects().size() == 1 ? QString() : tr("select one object first"); });
    command(
        "new-group", tr("New group of these"), tr("Puts what is selected into a group of its own"),
        theme::icon(QStringLiteral("new-group")), edit, QKeySequence(QStringLiteral("Ctrl+Shift+G")),
        [this] {
            const auto ids = work_.selectedObjects();
            session_.edit(tr("Group %1").arg(work_.namesOf(ids)), operations::newGroup(ids));
        },
        needSelection);
    offer({"zoom-to", "show-hide", "rename", "new-group", "delete"},
          [](const objects::Object&) { return true; });
}

void ObjectCommands::renameSelected() {
    // In place, where a list or table has the keys.
    if (auto* list = qobject_cast<QAbstractItemView*>(QApplication::focusWidget()))
        return list->edit(list->currentIndex());
    const ObjectId id = session_.selection().front().object;
    bool done = false;
    const QString name = QInputDialog::getText(work_.window, tr("Rename"), tr("Name"), QLineEdit::Normal,
                                               work_.nameOf(id), &done)
                             .trimmed();
    if (!done || name.isEmpty()) return;
    session_.edit(tr("Rename %1").arg(work_.nameOf(id)), operations::rename(id, name.toStdString()));
}

}  // namespace erdwerk::app

#include "moc_object_commands.cpp"
