#include "app/plan/plan_texts.h"

#include <QFontMetricsF>
#include <QPainterPath>
#include <QPen>
#include <cmath>
#include <numbers>

#include "app/base/theme.h"

namespace erdwerk::app {

using annotate::TextBox;
using geometry::Vec2;

namespace {

/// Of the size of the font: capital letters of Inter, and a line with what hangs below it.
constexpr double capitals = 0.727;
constexpr double lineHeight = 1.12;

std::uint64_t keyOf(ObjectId of, std::uint64_t key) {
    return of.value * 0x9E3779B97F4A7C15U ^ (key + 1);
}

QPointF point(Vec2 p) {
    return {p.x, p.y};
}

}  // namespace

double pixelsOfCapitals(double millimetres) {
    return millimetres / capitals / millimetresPerPixel;
}

PlanTexts::PlanTexts(const ViewTransform& view, double unit, std::optional<QRectF> within)
    : view_(view), unit_(unit) {
    if (!within) return;
    // Walls round the room: no text crosses them.
    const double far = 4 * std::max(within->width(), within->height());
    const auto wall = [&](double x, double y, double w, double h) {
        placer_.keepOff({{x + w / 2, y + h / 2}, w, h, 0, false});
    };
    wall(within->left() - far, within->top() - far, far, within->height() + 2 * far);
    wall(within->right(), within->top() - far, far, within->height() + 2 * far);
    wall(within->left() - far, within->top() - far, within->width() + 2 * far, far);
    wall(within->left() - far, within->bottom(), within->width() + 2 * far, far);
}

QFont PlanTexts::font(double pixels, bool strong) const {
    const int size = std::max(1, static_cast<int>(std::lround(pixels * unit_)));
    const auto [it, fresh] = fonts_.try_emplace(size * 2 + (strong ? 1 : 0));
    if (fresh) {
        it->second = theme::font(10, strong);
        it->second.setPixelSize(size);
    }
    return it->second;
}

double PlanTexts::widthOf(const TextLook& look) const {
    return QFontMetricsF(font(look.pixels, look.strong)).horizontalAdvance(look.text);
}

annotate::TextLine PlanTexts::line(const TextLook& look, annotate::Stand stand, double along,
                                   double gapPixels) const {
    const double pad = look.backing == TextBacking::Frame ? 4 : 1;
    const double height = look.pixels * lineHeight + (look.backing == TextBacking::Frame ? 4 : 0);
    return {widthOf(look) + 2 * pad * unit_, height * unit_, stand, along, gapPixels * unit_};
}

TextBox PlanTexts::box(const TextLook& look, QPointF middle, double degrees) const {
    const auto size = line(look);
    return {{middle.x(), middle.y()}, size.width, size.height, degrees * std::numbers::pi / 180, false};
}

void PlanTexts::keepOff(QPointF middle, QSizeF size) {
    placer_.keepOff({{middle.x(), middle.y()}, size.width(), size.height(), 0, false});
}

void PlanTexts::ask(annotate::PlacedText places, Ask ask) {
    if (ask.report) noteMissing(ask);
    if (places.candidates.empty()) return report(ask, nullptr);
    places.rank = static_cast<int>(ask.rank);
    places.key = keyOf(ask.of, ask.key);
    placer_.add(std::move(places));
    asks_.push_back(std::move(ask));
}

void PlanTexts::noteMissing(const Ask& ask) {
    QString lacks;
    for (const TextLook& look : ask.looks) {
        const QFontMetrics metrics(font(look.pixels, look.strong));
        for (const char32_t c : look.text.toStdU32String())
            if (c >= 0x80 && !metrics.inFontUcs4(c) && !lacks.contains(QString::fromUcs4(&c, 1)))
                lacks += QString::fromUcs4(&c, 1);
    }
    if (!lacks.isEmpty()) shown_.missing[ask.of] = lacks;
}

void PlanTexts::place() {
    if (!placed_) placed_ = placer_.place();
}

void PlanTexts::write(QPainter& painter) {
    place();
    const auto& placed = *placed_;
    for (std::size_t i = 0; i < placed.size(); ++i) {
        const Ask& ask = asks_[i];
        if (!placed[i]) {
            report(ask, nullptr);
            continue;
        }
        const annotate::Candidate& candidate = placer_.text(i).candidates[*placed[i]];
        report(ask, &candidate);
        if (ask.besides) ask.besides(painter);
        if (candidate.leader) {
            painter.setPen(QPen(ask.leader.isValid() ? ask.leader : theme::inkQuiet, 0.8 * unit_));
            painter.drawLine(point(candidate.leader->from), point(candidate.leader->to));
        }
        const bool tag = ask.tag && candidate.way == static_cast<std::uint8_t>(annotate::Way::Tag);
        for (std::size_t k = 0; k < candidate.boxes.size(); ++k)
            writeAt(painter, candidate.boxes[k], tag ? *ask.tag : ask.looks[k]);
    }
}

void PlanTexts::report(const Ask& ask, const annotate::Candidate* candidate) {
    const QRectF picture({0, 0}, view_.size);
    ++shown_.texts;
    if (candidate == nullptr) {
        ++shown_.without;
        if (ask.report) shown_.leftOut.insert(ask.of);
        return;
    }
    if (!ask.report) return;
    auto& of = shown_.shown[ask.of];
    of.tag = ask.tag && candidate->way == static_cast<std::uint8_t>(annotate::Way::Tag);
    for (TextBox box : candidate->boxes) {
        box.centre = view_.toGround(point(box.centre));
        box.width /= view_.scale;
        box.height /= view_.scale;
        box.turn = -box.turn - view_.up().radians();
        of.boxes.push_back(box);
    }
}

void PlanTexts::writeAt(QPainter& painter, const TextBox& box, const TextLook& look) const {
    const QFont written = font(look.pixels, look.strong);
    const QFontMetricsF metrics(written);
    painter.save();
    painter.translate(point(box.centre));
    painter.rotate(box.turn * 180 / std::numbers::pi);
    const QRectF room(-box.width / 2, -box.height / 2, box.width, box.height);
    const double size = look.pixels * unit_;
    const QPointF base(-metrics.horizontalAdvance(look.text) / 2, size * capitals / 2);
    switch (look.backing) {
        case TextBacking::Halo: {
            QPainterPath outline;
            outline.addText(base, written, look.text);
            QPen rim(QColor(0xFA, 0xF7, 0xF0, 215), 3 * unit_);
            rim.setJoinStyle(Qt::RoundJoin);
            painter.strokePath(outline, rim);
            break;
        }
        case TextBacking::Plate:
            painter.setPen(Qt::NoPen);
            painter.setBrush(QColor(0xF6, 0xF1, 0xE6, 225));
            painter.drawRect(room);
            break;
        case TextBacking::Frame:
            painter.setPen(QPen(look.colour, 1.2 * unit_));
            painter.setBrush(theme::paper);
            painter.drawRect(room);
            break;
    }
    painter.setBrush(Qt::NoBrush);
    painter.setPen(look.colour);
    painter.setFont(written);
    painter.drawText(base, look.text);
    painter.restore();
}

}  // namespace erdwerk::app
