#include "app/window/commands/help_commands.h"

#include <QStackedWidget>

#include "app/base/theme.h"
#include "app/plan/plan_view.h"
#include "app/window/guide_panel.h"
#include "app/window/stage_bar.h"
#include "app/window/workbench.h"

namespace erdwerk::app {

HelpCommands::HelpCommands(Workbench& work) : CommandSet(work) {
    add();
    connect(work_.guide, &GuidePanel::closed, this, [this] { showGuide(false); });
}

void HelpCommands::add() {
    command(
        "guide", tr("Guide"), tr("Opens the guide at the page that fits, or closes it"),
        theme::icon(QStringLiteral("guide")), tr("Help"), QKeySequence(QStringLiteral("F1")),
        [this] { showGuide(work_.right->currentIndex() == 0); }, anOpenProject());
}

void HelpCommands::showGuide(bool shown) {
    if (shown) work_.guide->openAt(work_.stageBar->stage());
    work_.right->setCurrentIndex(shown ? 1 : 0);
    if (!shown) work_.plan->setFocus();
}

}  // namespace erdwerk::app

#include "moc_help_commands.cpp"
