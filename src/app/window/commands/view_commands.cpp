#include "app/window/commands/view_commands.h"

#include <QLineEdit>
#include <QToolButton>

#include "app/base/theme.h"
#include "app/bench/bench.h"
#include "app/panels/contents.h"
#include "app/plan/plan_parts.h"
#include "app/plan/plan_view.h"
#include "app/scene/scene_view.h"
#include "app/window/twin_views.h"
#include "app/window/workbench.h"

namespace erdwerk::app {

ViewCommands::ViewCommands(Workbench& work) : CommandSet(work) {
    add();
    pageCommands();
}

void ViewCommands::add() {
    const auto needProject = anOpenProject();
    const QString view = tr("View");
    const QIcon icon = theme::icon(QStringLiteral("twin"));
    command(
        "fit", tr("Fit all"), tr("Shows everything in the plan and in 3D"),
        theme::icon(QStringLiteral("fit")), view, QKeySequence(QStringLiteral("Ctrl+0")),
        [this] {
            work_.plan->fit();
            work_.scene->fit();
        },
        needProject);
    const auto twin = [&](const char* id, const QString& text, const QString& help, const char* key,
                          TwinViews::Twin which) {
        command(
            id, text, help, icon, view, QKeySequence(QString::fromLatin1(key)),
            [this, which] {
                work_.views->setTwin(work_.views->twin() == which ? TwinViews::Twin::None : which);
            },
            needProject);
    };
    twin("twin", tr("3D twin view"), tr("Shows or hides the 3D view beside the plan"), "Ctrl+T",
         TwinViews::Twin::Scene);
    twin("twin-plan", tr("Source and surface side by side"),
         tr("Two plans in step: the surface in one, its source in the other, faded over each other"),
         "Ctrl+Shift+T", TwinViews::Twin::Plan);
    command(
        "in-step", tr("Keep both views in step"),
        tr("The plan and its twin show the same place at the same scale, or each its own"), icon, view, {},
        [this] {
            work_.views->setInStep(!work_.views->inStep());
            work_.say(work_.views->inStep() ? tr("Both views move together") : tr("Each view moves alone"),
                      false);
        },
        needProject);
    for (const double factor : {1.0, 2.0, 5.0})
        command(
            qPrintable(QStringLiteral("exaggerate-%1").arg(factor)), tr("3D heights × %1").arg(factor),
            tr("Vertical exaggeration of the 3D view"), icon, view, {},
            [this, factor] { work_.scene->setExaggeration(factor); }, needProject);
}

void ViewCommands::pageCommands() {
    const auto needProject = anOpenProject();
    const QString view = tr("View");
    const QIcon icon = theme::icon(QStringLiteral("profile"));
    for (const Bench::Page page : Bench::allPages) {
        const int number = static_cast<int>(page) + 1;
        command(
            qPrintable(QStringLiteral("page-%1").arg(number)), tr("Page %1").arg(Bench::pageName(page)),
            tr("Opens this page of the bench"), icon, view,
            QKeySequence(QStringLiteral("Ctrl+%1").arg(number)),
            [this, page] {
                work_.bench->open(page);
                work_.bench->focusPage();
            },
            needProject);
    }
    command(
        "fold-bench", tr("Fold the bench"), tr("The bench folds to its row of tabs, or unfolds"), icon, view,
        QKeySequence(QStringLiteral("Ctrl+B")), [this] { work_.bench->setFolded(!work_.bench->isFolded()); },
        needProject);
    command(
        "plan-shows", tr("What the plan shows…"),
        tr("Points, numbers, heights, contours, triangles, colours, clouds, labels: on or off"),
        theme::icon(QStringLiteral("eye")), view, QKeySequence(QStringLiteral("Ctrl+L")),
        [this] {
            work_.partsMenu->popup(
                work_.shows->mapToGlobal(QPoint(0, -work_.partsMenu->sizeHint().height())));
        },
        needProject);
    command(
        "filter-contents", tr("Filter contents"), tr("Type to see only what has these letters in its name"),
        theme::icon(QStringLiteral("finder")), view, QKeySequence(QStringLiteral("Ctrl+F")),
        [this] {
            work_.contents->filter()->setFocus();
            work_.contents->filter()->selectAll();
        },
        needProject);
}

}  // namespace erdwerk::app

#include "moc_view_commands.cpp"
