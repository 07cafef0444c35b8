#include "app/window/commands/edit_commands.h"

#include "app/base/theme.h"
#include "app/panels/contents.h"
#include "app/plan/plan_view.h"
#include "app/plan/tool.h"
#include "app/window/finder.h"
#include "app/window/tool_in_hand.h"
#include "app/window/workbench.h"
#include "core/objects/points.h"
#include "core/objects/sheet.h"
#include "core/operations/objects.h"
#include "core/operations/routes.h"
#include "core/operations/sheets.h"

namespace erdwerk::app {

EditCommands::EditCommands(Workbench& work, ToolInHand& inHand) : CommandSet(work), inHand_(inHand) {
    add();
    connect(work_.plan, &PlanView::deletePressed, this, &EditCommands::deleteSelection);
    connect(work_.contents, &Contents::deletePressed, this, &EditCommands::deleteSelection);
}

void EditCommands::add() {
    const QString edit = tr("Edit");
    command("undo", tr("Undo"), tr("Takes back the last step, inside a tool too"),
            theme::icon(QStringLiteral("undo")), edit, QKeySequence::Undo, [this] { undo(); });
    command("redo", tr("Redo"), tr("Does again what was undone"), theme::icon(QStringLiteral("redo")), edit,
            QKeySequence(QStringLiteral("Ctrl+Y")), [this] { redo(); });
    command(
        "delete", tr("Delete"), tr("Deletes what is selected"), theme::icon(QStringLiteral("delete")), edit,
        {}, [this] { deleteSelection(); },
        [this] { return session_.selection().empty() ? tr("select something first") : QString(); });
    command("finder", tr("Finder"), tr("Finds every tool and every thing by a few letters"),
            theme::icon(QStringLiteral("finder")), edit, QKeySequence(QStringLiteral("Ctrl+K")), [this] {
                auto* finder = new Finder(actions_, session_, work_.window);
                finder->setAttribute(Qt::WA_DeleteOnClose);
                finder->move(work_.window->mapToGlobal(
                    QPoint((work_.window->width() - finder->minimumWidth()) / 2, 90)));
                finder->show();
                finder->entry()->setFocus();
            });
    command(
        "work-out", tr("Work out again"), tr("Works out all results that were stopped"),
        theme::icon(QStringLiteral("redo")), edit, QKeySequence(QStringLiteral("Ctrl+R")),
        [this] { session_.workOut(); },
        [this] {
            return session_.isStale() ? QString() : tr("the results are those of the project as it is");
        });
}

void EditCommands::undo() {
    // Inside a tool the last step of the tool comes first.
    if (inHand_.tool() && inHand_.tool()->stepBack()) return;
    session_.undo();
}

void EditCommands::redo() {
    if (inHand_.tool() && inHand_.tool()->stepForward()) return;
    session_.redo();
}

void EditCommands::deleteSelection() {
    // A PI goes by itself, not with its alignment.
    if (const auto& chosen = session_.selection();
        chosen.size() == 1 && chosen.front().part &&
        operations::pisOf(session_.document(), chosen.front().object) != nullptr) {
        const Ref pi = chosen.front();
        if (session_.edit(tr("Remove PI %1").arg(*pi.part + 1), operations::removePi(pi.object, *pi.part)))
            session_.selection().set({{pi.object, std::nullopt}});
        return;
    }
    // A frame, not its sheet.
    if (const auto& chosen = session_.selection(); chosen.size() == 1 && chosen.front().part)
        if (const auto* sheet = session_.document().get<objects::Sheet>(chosen.front().object);
            sheet != nullptr) {
            // One that was taken back meanwhile is nothing to delete, nor is its sheet.
            if (*chosen.front().part >= sheet->frames.size())
                return session_.selection().set({{chosen.front().object, std::nullopt}});
            const Ref frame = chosen.front();
            const auto name = QString::fromStdString(operations::frameName(*sheet, *frame.part));
            session_.selection().set({{frame.object, std::nullopt}});
            session_.edit(tr("Remove %1").arg(name), operations::removeFrame(frame.object, *frame.part));
            return;
        }
    std::vector<ObjectId> objects;
    std::vector<objects::PointRef> points;
    for (const Ref& r : session_.selection()) {
        if (session_.document().get<objects::Points>(r.object) != nullptr && r.part)
            points.push_back({r.object, *r.part});
        else
            objects.push_back(r.object);
    }
    if (objects.empty() && points.empty()) return;
    const QString what =
        objects.size() + points.size() == 1
            ? tr("Delete %1").arg(points.empty() ? work_.nameOf(objects.front()) : tr("a point"))
            : tr("Delete %1 things").arg(objects.size() + points.size());
    // What stands where the deleted thing stood is something else.
    if (session_.edit(what, operations::remove(std::move(objects), std::move(points))))
        session_.selection().set({});
}

}  // namespace erdwerk::app

#include "moc_edit_commands.cpp"
