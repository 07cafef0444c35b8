// The commands of views, pages and the guide.

#include "app/plan/plan_parts.h"
#include "app/window/main_window.h"

namespace erdwerk::app {

void MainWindow::viewCommands() {
    const auto needProject = [this] { return tools::anOpenProject(session_); };
    const QString view = tr("View");
    const QIcon icon = theme::icon(QStringLiteral("twin"));
    command(
        "fit", tr("Fit all"), tr("Shows everything in the plan and in 3D"),
        theme::icon(QStringLiteral("fit")), view, QKeySequence(QStringLiteral("Ctrl+0")),
        [this] {
            plan_->fit();
            scene_->fit();
        },
        needProject);
    const auto twin = [&](const char* id, const QString& text, const QString& help, const char* key,
                          TwinViews::Twin which) {
        command(
            id, text, help, icon, view, QKeySequence(QString::fromLatin1(key)),
            [this, which] { views_->setTwin(views_->twin() == which ? TwinViews::Twin::None : which); },
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
            views_->setInStep(!views_->inStep());
            say(views_->inStep() ? tr("Both views move together") : tr("Each view moves alone"), false);
        },
        needProject);
    for (const double factor : {1.0, 2.0, 5.0})
        command(
            qPrintable(QStringLiteral("exaggerate-%1").arg(factor)), tr("3D heights × %1").arg(factor),
            tr("Vertical exaggeration of the 3D view"), icon, view, {},
            [this, factor] { scene_->setExaggeration(factor); }, needProject);
}

void MainWindow::pageCommands() {
    const auto needProject = [this] { return tools::anOpenProject(session_); };
    const QString view = tr("View");
    const QIcon icon = theme::icon(QStringLiteral("profile"));
    for (const Bench::Page page : Bench::allPages) {
        const int number = static_cast<int>(page) + 1;
        command(
            qPrintable(QStringLiteral("page-%1").arg(number)), tr("Page %1").arg(Bench::pageName(page)),
            tr("Opens this page of the bench"), icon, view,
            QKeySequence(QStringLiteral("Ctrl+%1").arg(number)),
            [this, page] {
                bench_->open(page);
                bench_->focusPage();
            },
            needProject);
    }
    command(
        "fold-bench", tr("Fold the bench"), tr("The bench folds to its row of tabs, or unfolds"), icon, view,
        QKeySequence(QStringLiteral("Ctrl+B")), [this] { bench_->setFolded(!bench_->isFolded()); },
        needProject);
    command(
        "plan-shows", tr("What the plan shows…"),
        tr("Points, numbers, heights, contours, triangles, colours, clouds, labels: on or off"),
        theme::icon(QStringLiteral("eye")), view, QKeySequence(QStringLiteral("Ctrl+L")),
        [this] { partsMenu_->popup(shows_->mapToGlobal(QPoint(0, -partsMenu_->sizeHint().height()))); },
        needProject);
    command(
        "filter-contents", tr("Filter contents"), tr("Type to see only what has these letters in its name"),
        theme::icon(QStringLiteral("finder")), view, QKeySequence(QStringLiteral("Ctrl+F")),
        [this] {
            contents_->filter()->setFocus();
            contents_->filter()->selectAll();
        },
        needProject);
    command(
        "guide", tr("Guide"), tr("Opens the guide at the page that fits, or closes it"),
        theme::icon(QStringLiteral("guide")), tr("Help"), QKeySequence(QStringLiteral("F1")),
        [this] { showGuide(rightStack_->currentIndex() == 0); }, needProject);
}

}  // namespace erdwerk::app
