#include "app/sheet/legend_frame.h"

#include <algorithm>

#include "app/base/theme.h"
#include "app/kinds/all_kinds.h"
#include "core/operations/sheets.h"

namespace erdwerk::app {

namespace {

/// Of what lies in the frame, each sign once.
void addSigns(const PaperInk& ink, const objects::Frame& frame, std::vector<PlanSign>& out) {
    const auto& plan = std::get<objects::PlanFrame>(frame.content);
    geometry::Box window;
    for (const auto corner : operations::planOnPaper(ink.snapshot.derived, plan, frame.room).corners)
        window.add(corner);
    for (const auto& [id, object] : ink.document().objects()) {
        const ObjectKind& kind = kindOf(*object);
        if (!operations::shownInFrame(ink.document(), plan.shown, *object) || !shows(plan.shown.off, kind))
            continue;
        geometry::Box box;
        kind.bounds(ink.snapshot.derived, id, box);
        if (box.empty() || !box.meets(window)) continue;
        for (auto& sign : kind.signs(ink.snapshot.derived, id))
            if (std::none_of(out.begin(), out.end(), [&](const auto& s) { return s.text == sign.text; }))
                out.push_back(std::move(sign));
    }
}

}  // namespace

void paintLegend(const PaperInk& ink, const paper::Room& room) {
    std::vector<PlanSign> signs;
    for (const auto& frame : ink.of().frames)
        if (std::holds_alternative<objects::PlanFrame>(frame.content)) addSigns(ink, frame, signs);
    auto& p = ink.painter;
    const QRectF r = ink.room(room);
    const double mm = ink.mm;
    if (signs.empty()) return ink.warn(r, QObject::tr("No plan on this sheet shows anything yet."));
    p.save();
    p.setClipRect(r, Qt::IntersectClip);
    p.setPen(theme::ink);
    p.setFont(ink.font(3.4, true));
    p.drawText(QRectF(r.left(), r.top(), r.width(), 5 * mm), Qt::AlignLeft | Qt::AlignVCenter,
               QObject::tr("Legend"));
    // In columns, as many as they need.
    const double line = 5.2 * mm;
    const auto rows = std::max(1, static_cast<int>((r.height() - 7 * mm) / line));
    const int columns = (static_cast<int>(signs.size()) + rows - 1) / rows;
    const double width = r.width() / columns;
    for (std::size_t i = 0; i < signs.size(); ++i) {
        const double x = r.left() + static_cast<double>(static_cast<int>(i) / rows) * width;
        const double y = r.top() + 7 * mm + static_cast<double>(static_cast<int>(i) % rows) * line;
        const double sample = std::min(12 * mm, width * 0.3);
        p.save();
        signs[i].draw(p, QRectF(x, y, sample, line), millimetresPerPixel * mm);
        p.restore();
        p.setPen(theme::ink);
        p.setFont(ink.font(2.6));
        const QRectF words(x + sample + 2 * mm, y, width - sample - 3 * mm, line);
        p.drawText(words, Qt::AlignLeft | Qt::AlignVCenter,
                   QFontMetricsF(p.font()).elidedText(signs[i].text, Qt::ElideRight, words.width()));
    }
    p.restore();
}

}  // namespace erdwerk::app
