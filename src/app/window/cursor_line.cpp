#include "app/window/cursor_line.h"

#include <QLabel>
#include <QStatusBar>
#include <QToolButton>

#include "app/base/theme.h"
#include "app/plan/plan_parts.h"
#include "app/plan/plan_view.h"
#include "app/window/workbench.h"
#include "core/derive/derived.h"

namespace erdwerk::app {

CursorLine::CursorLine(Workbench& work, QStatusBar& bar)
    : QObject(&bar), work_(work), cursor_(new QLabel), scale_(new QLabel) {
    cursor_->setFont(theme::font(12));
    scale_->setContentsMargins(0, 0, 10, 0);
    cursor_->setContentsMargins(8, 0, 0, 0);
    bar.addWidget(cursor_, 1);
    bar.addPermanentWidget(work_.shows);
    bar.addPermanentWidget(scale_);
    bar.setSizeGripEnabled(false);
    connect(work_.plan, &PlanView::cursorMoved, this, &CursorLine::update);
    connect(work_.plan, &PlanView::viewChanged, this, [this] { update(std::nullopt); });
}

void CursorLine::update(const std::optional<geometry::Vec2>& place) {
    const auto& display = work_.session.document().settings().display;
    QString text;
    if (place) {
        text = QString::fromStdString(formatPosition(place->x, place->y, display));
        const auto* surface = work_.session.derived().topSurface(*place);
        if (surface != nullptr) {
            const auto slope = terrain::slopeOf(surface->tin().triangle(*surface->triangleAt(*place)));
            text +=
                tr("     height %1     grade %2     downhill %3")
                    .arg(QString::fromStdString(formatHeight(surface->heightAt(*place), display)),
                         QString::fromStdString(formatGrade(Grade::riseOverRun(slope.grade), display)),
                         slope.grade > 0 ? QString::fromStdString(formatDirection(slope.downhill, display))
                                         : tr("flat"));
        } else {
            text += tr("     no surface here");
        }
    }
    cursor_->setText(text);
    // Screens have about 96 pixels an inch; the figure is what the plan would be on paper.
    const double metresPerPixel = metresPer(display.unit) / std::max(work_.plan->view().scale, 1e-9);
    scale_->setText(tr("about 1 : %1   %2")
                        .arg(static_cast<qlonglong>(metresPerPixel / 0.0254 * 96))
                        .arg(QString::fromUtf8(unitSymbol(display.unit).data())));
}

}  // namespace erdwerk::app

#include "moc_cursor_line.cpp"
