#include "app/plan/plan_painter.h"

#include <algorithm>
#include <cmath>

#include "app/base/theme.h"
#include "app/plan/cut_fill.h"

namespace erdwerk::app {

PlanPainter::PlanPainter(QPainter& painter, const Snapshot& snapshot, const ViewTransform& view,
                         const PlanLayers& layers, PlanOptions options)
    : canvas_(painter, snapshot, view, std::move(options)) {
    for (const auto& [id, object] : canvas_.document.objects()) {
        const auto& shown = canvas_.options.showsObject;
        if (shown ? !shown(*object) : canvas_.document.hidden(*object)) continue;
        const PlanLayer& layer = layerOf(layers, *object);
        if (!shows(canvas_.options.off, layer)) continue;
        for (const PlanPass pass : layer.passes())
            turns_[static_cast<std::size_t>(pass)].emplace_back(id, &layer);
    }
}

bool PlanPainter::takesPart(PlanPass pass) const {
    const PlanOptions& o = canvas_.options;
    switch (pass) {
        case PlanPass::Backdrops:
        case PlanPass::DenseBelow:
        case PlanPass::Dense:
            return o.source;
        case PlanPass::Colours:
            return o.ground && o.shows(objects::PlanPart::GroundColours);
        case PlanPass::Ground:
        case PlanPass::ContourHeights:
            return o.ground;
        default:
            return true;
    }
}

void PlanPainter::paint() {
    canvas_.painter.setRenderHint(QPainter::Antialiasing);
    for (const auto& box : canvas_.options.taken) canvas_.texts.keepOff(box);
    if (canvas_.options.shows(objects::PlanPart::GridCrosses)) rimTexts();
    for (const PlanPass pass : allPasses) {
        if (canvas_.stopped()) return;
        canvas_.pass = pass;
        if (canvas_.options.begins) canvas_.options.begins(pass);
        if (pass == PlanPass::Ground && takesPart(pass) && canvas_.options.cutFill)
            paintCutFill(canvas_, *canvas_.options.cutFill);
        if (pass == PlanPass::Linework && canvas_.options.shows(objects::PlanPart::GridCrosses)) grid();
        if (!takesPart(pass)) continue;
        for (const auto& [id, layer] : turns_[static_cast<std::size_t>(pass)]) {
            if (canvas_.stopped()) return;
            layer->paint(canvas_, id, pass);
        }
    }
    canvas_.pass = PlanPass::Texts;
    if (canvas_.options.begins) canvas_.options.begins(PlanPass::Texts);
    canvas_.texts.write(canvas_.painter);
    legends();
}

void PlanPainter::grid() {
    const double step = roundStep(110 * canvas_.unit / canvas_.view.scale);
    canvas_.painter.setPen(canvas_.pen(QColor(0x6B, 0x77, 0x80, 150), 0.8));
    const double arm = 4 * canvas_.unit;
    for (double x = std::ceil(canvas_.window.minX / step) * step; x <= canvas_.window.maxX; x += step)
        for (double y = std::ceil(canvas_.window.minY / step) * step; y <= canvas_.window.maxY; y += step) {
            const QPointF p = canvas_.view.toPicture({x, y});
            canvas_.painter.drawLine(p - QPointF(arm, 0), p + QPointF(arm, 0));
            canvas_.painter.drawLine(p - QPointF(0, arm), p + QPointF(0, arm));
        }
}

void PlanPainter::rimTexts() {
    const double step = roundStep(110 * canvas_.unit / canvas_.view.scale);
    const double u = canvas_.unit;
    const int decimals = step < 1 ? 2 : 0;
    std::uint64_t key = 0;
    const auto add = [&](QPointF middle, bool fromLeft, double value, const QString& before = {}) {
        const TextLook look{before + QString::fromStdString(formatFixed(value, decimals)), 10,
                            theme::inkQuiet};
        annotate::Candidate place;
        place.boxes = {canvas_.texts.box(look, middle)};
        if (fromLeft) place.boxes[0].centre.x += place.boxes[0].width / 2;
        annotate::PlacedText text;
        text.candidates = {place};
        canvas_.texts.ask(
            std::move(text),
            {canvas_.options.frame ? TextRank::Rim : TextRank::RimOfScreen, ++key, {}, {look}, {}, {}});
    };
    if (canvas_.view.isTurned()) {
        turnedRimTexts(step, add);
        return;
    }
    for (double x = std::ceil(canvas_.window.minX / step) * step; x <= canvas_.window.maxX; x += step) {
        const double px = canvas_.view.toPicture({x, 0}).x();
        if (px < 60 * u || px > canvas_.view.size.width() - 30 * u) continue;
        add({px, canvas_.view.size.height() - 9 * u}, false, x);
    }
    for (double y = std::ceil(canvas_.window.minY / step) * step; y <= canvas_.window.maxY; y += step) {
        const double py = canvas_.view.toPicture({0, y}).y();
        if (py < 20 * u || py > canvas_.view.size.height() - 24 * u) continue;
        add({4 * u, py}, true, y);
    }
}

/// Where a turned grid crosses the lower and the left rim; each says which of the two it is.
void PlanPainter::turnedRimTexts(
    double step, const std::function<void(QPointF, bool, double, const QString&)>& add) const {
    const auto& view = canvas_.view;
    const double u = canvas_.unit;
    const geometry::Vec2 left = view.toGround({0, view.size.height()});
    const geometry::Vec2 right = view.toGround({view.size.width(), view.size.height()});
    const geometry::Vec2 top = view.toGround({0, 0});
    const auto along = [&](geometry::Vec2 from, geometry::Vec2 to, bool upright) {
        for (const bool easting : {true, false}) {
            const double a = easting ? from.x : from.y;
            const double b = easting ? to.x : to.y;
            // Lines that run nearly along the rim cross it anywhere.
            if (std::abs(b - a) < 0.5 * geometry::distance(from, to)) continue;
            for (double v = std::ceil(std::min(a, b) / step) * step; v <= std::max(a, b); v += step) {
                const QPointF at = view.toPicture(from + (to - from) * ((v - a) / (b - a)));
                const QString letter = easting ? QStringLiteral("E ") : QStringLiteral("N ");
                if (upright && at.y() > 20 * u && at.y() < view.size.height() - 24 * u)
                    add({4 * u, at.y()}, true, v, letter);
                if (!upright && at.x() > 60 * u && at.x() < view.size.width() - 40 * u)
                    add({at.x(), view.size.height() - 9 * u}, false, v, letter);
            }
        }
    };
    along(left, right, false);
    along(left, top, true);
}

/// At the lower right, above the scale bar, one over the other.
void PlanPainter::legends() {
    // Room for the scale bar below.
    double bottom = canvas_.view.size.height() - 54 * canvas_.unit;
    for (const auto& [title, rows] : canvas_.legends) {
        const double u = canvas_.unit;
        const double line = 17 * u;
        QFont font = theme::font(11);
        font.setPixelSize(std::max(1, static_cast<int>(11 * u)));
        const QFontMetricsF metrics(font);
        double width = metrics.horizontalAdvance(title);
        for (const auto& [colour, text] : rows)
            width = std::max(width, metrics.horizontalAdvance(text) + 22 * u);
        const QRectF room(canvas_.view.size.width() - width - 26 * u,
                          bottom - line * static_cast<double>(rows.size() + 1) - 10 * u, width + 16 * u,
                          line * static_cast<double>(rows.size() + 1) + 10 * u);
        auto& p = canvas_.painter;
        p.setPen(QPen(QColor(0xD9, 0xD3, 0xC7), u));
        p.setBrush(theme::paper);
        p.drawRect(room);
        p.setFont(font);
        double y = room.top() + 5 * u;
        p.setPen(theme::ink);
        p.drawText(QRectF(room.left() + 8 * u, y, width, line), Qt::AlignLeft | Qt::AlignVCenter, title);
        for (const auto& [colour, text] : rows) {
            y += line;
            p.setPen(QPen(theme::inkQuiet, 0.6 * u));
            p.setBrush(colour);
            p.drawRect(QRectF(room.left() + 8 * u, y + 3 * u, 14 * u, 11 * u));
            p.setPen(theme::ink);
            p.drawText(QRectF(room.left() + 30 * u, y, width, line), Qt::AlignLeft | Qt::AlignVCenter, text);
        }
        p.setBrush(Qt::NoBrush);
        bottom = room.top() - 8 * u;
    }
}

}  // namespace erdwerk::app
