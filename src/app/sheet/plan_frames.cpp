#include "app/sheet/plan_frames.h"

#include <cmath>

#include "app/base/theme.h"
#include "app/kinds/all_kinds.h"
#include "app/plan/plan_painter.h"
#include "core/operations/sheets.h"

namespace erdwerk::app {

using geometry::Vec2;
using objects::PlanPart;

QFont PaperInk::font(double millimetres, bool strong) const {
    QFont out = theme::font(10, strong);
    out.setPixelSize(std::max(1, static_cast<int>(std::lround(millimetres * mm))));
    return out;
}

void PaperInk::warn(const QRectF& room, const QString& text) const {
    painter.setFont(font(2.3));
    painter.setPen(theme::madder);
    painter.drawText(room, Qt::AlignLeft | Qt::AlignTop | Qt::TextWordWrap, text);
}

namespace {

QString layerName(PlanPass pass) {
    switch (pass) {
        case PlanPass::Linework:
            return QObject::tr("Linework");
        case PlanPass::Routes:
            return QObject::tr("Alignments");
        case PlanPass::Records:
            return QObject::tr("Parcels and dimensions");
        case PlanPass::Texts:
            return QObject::tr("Labels");
        case PlanPass::Points:
            return QObject::tr("Survey points");
        default:
            return QObject::tr("Ground");
    }
}

/// By how much the lines of a pass are wider than on the screen, whose pixel is 0.24 mm: its normal line
/// (contour, line, alignment, boundary, cross) gets the weight.
std::array<double, allPasses.size()> widthsOf(const objects::LineWeights& weights) {
    std::array<double, allPasses.size()> out{};
    const auto set = [&](PlanPass pass, double weight, double pixels) {
        out[static_cast<std::size_t>(pass)] = weight / (pixels * millimetresPerPixel);
    };
    set(PlanPass::Ground, weights.ground, 0.8);
    set(PlanPass::Linework, weights.linework, 1.4);
    set(PlanPass::Routes, weights.routes, 1.8);
    set(PlanPass::Records, weights.records, 2);
    set(PlanPass::Points, weights.points, 1);
    return out;
}

/// What a match line says, and where: upwards along it, near the upper rim, on the side that belongs to the
/// other sheet.
struct MatchText {
    QString words;
    annotate::TextBox box;  ///< in the picture
};
MatchText matchText(const PaperInk& ink, const ViewTransform& view, const operations::MatchLine& line) {
    const auto station =
        QString::fromStdString(formatStation(line.station, ink.document().settings().display));
    MatchText out{line.sheet.empty() ? QObject::tr("Match line %1").arg(station)
                                     : QObject::tr("Match line %1, see %2").arg(station, text(line.sheet)),
                  {}};
    const QPointF at = view.toPicture(line.at);
    QPointF way = view.toPicture(line.right) - view.toPicture(line.left);
    way /= std::hypot(way.x(), way.y());
    if (way.y() > 0 || (way.y() == 0 && way.x() < 0)) way = -way;
    const double width = QFontMetricsF(ink.font(2.6, true)).horizontalAdvance(out.words) + 2 * ink.mm;
    // As far up as the frame goes, either way.
    double up = std::abs(way.y()) > 1e-9 ? at.y() / -way.y() : view.size.height() / 2;
    if (way.x() > 1e-9) up = std::min(up, (view.size.width() - at.x()) / way.x());
    if (way.x() < -1e-9) up = std::min(up, at.x() / -way.x());
    const QPointF aside = QPointF(-way.y(), way.x()) * ((line.ahead ? 2.6 : -2.6) * ink.mm);
    const QPointF middle = at + way * std::max(0.0, up - width / 2 - 4 * ink.mm) + aside;
    out.box = {{middle.x(), middle.y()}, width, 4 * ink.mm, std::atan2(way.y(), way.x()), false};
    return out;
}

/// A dashed line across the frame, with where the plan goes on along it.
void paintMatchLine(const PaperInk& ink, const ViewTransform& view, const operations::MatchLine& line) {
    auto& p = ink.painter;
    QPen pen(theme::ink, 0.35 * ink.mm);
    pen.setDashPattern({14, 5, 3, 5});
    pen.setCapStyle(Qt::FlatCap);
    p.setPen(pen);
    p.drawLine(view.toPicture(line.left), view.toPicture(line.right));
    const auto [words, box] = matchText(ink, view, line);
    p.save();
    p.translate(box.centre.x, box.centre.y);
    p.rotate(box.turn * 180 / M_PI);
    const QRectF room(-box.width / 2, -box.height / 2, box.width, box.height);
    p.fillRect(room, QColor(255, 255, 255, 220));
    p.setPen(theme::ink);
    p.setFont(ink.font(2.6, true));
    p.drawText(room, Qt::AlignCenter, words);
    p.restore();
}
/// Paper stays white: what covers the ground is for the screen.
objects::PlanPartsOff onPaper(objects::PlanPartsOff off) {
    off.insert({PlanPart::GroundColours, PlanPart::Clouds, PlanPart::Backdrops});
    return off;
}

std::function<bool(const objects::Object&)> filterOf(const PaperInk& ink,
                                                     const objects::ShownInFrame& shown) {
    return [&document = ink.document(), shown](const objects::Object& object) {
        return operations::shownInFrame(document, shown, object);
    };
}

}  // namespace

ViewTransform viewOf(const PaperInk& ink, const operations::PlanOnPaper& plan, const paper::Room& room) {
    ViewTransform view;
    view.centre = plan.centre;
    // True to scale: so many paper units for a ground unit.
    view.scale = metresPer(ink.document().settings().display.unit) * 1000 / plan.scale * ink.mm;
    view.size = ink.room(room).size();
    view.turnTo(plan.up);
    return view;
}

TextsShown paintPlanFrame(const PaperInk& ink, const objects::PlanFrame& frame, const paper::Room& room) {
    auto& p = ink.painter;
    const auto plan = operations::planOnPaper(ink.snapshot.derived, frame, room);
    const ViewTransform view = viewOf(ink, plan, room);
    p.save();
    p.setClipRect(ink.room(room), Qt::IntersectClip);
    p.translate(ink.room(room).topLeft());
    PlanOptions options;
    options.unit = millimetresPerPixel * ink.mm;
    options.off = onPaper(frame.shown.off);
    options.frame = true;
    options.cancel = ink.cancel;
    options.showsObject = filterOf(ink, frame.shown);
    options.widths = widthsOf(ink.of().weights);
    options.begins = [&ink](PlanPass pass) { ink.begin(layerName(pass)); };
    for (const auto& line : plan.matchLines) options.taken.push_back(matchText(ink, view, line).box);
    PlanPainter painter(p, ink.snapshot, view, planLayers(), options);
    painter.paint();
    ink.begin(QObject::tr("Frames"));
    for (const auto& line : plan.matchLines) paintMatchLine(ink, view, line);
    p.restore();
    return painter.texts();
}

void paintScale(const PaperInk& ink, const paper::Room& room) {
    const objects::Frame* first = nullptr;
    for (const auto& frame : ink.of().frames)
        if (std::holds_alternative<objects::PlanFrame>(frame.content)) {
            first = &frame;
            break;
        }
    const QRectF r = ink.room(room);
    if (first == nullptr) return ink.warn(r, QObject::tr("There is no plan on this sheet."));
    const auto plan = operations::planOnPaper(ink.snapshot.derived,
                                              std::get<objects::PlanFrame>(first->content), first->room);
    auto& p = ink.painter;
    const double mm = ink.mm;
    p.save();
    p.setClipRect(r, Qt::IntersectClip);
    p.save();
    p.translate(r.left() + 10 * mm, r.top() + std::min(12.0 * mm, r.height() / 2));
    p.rotate(-plan.up.degrees());
    p.setPen(QPen(theme::ink, 0.3 * mm));
    p.setBrush(Qt::white);
    p.drawPolygon(QPolygonF{QPointF(0, -8.4) * mm, QPointF(2.8, 4.6) * mm, QPointF(0, 2.4) * mm});
    p.setBrush(theme::ink);
    p.drawPolygon(QPolygonF{QPointF(0, -8.4) * mm, QPointF(-2.8, 4.6) * mm, QPointF(0, 2.4) * mm});
    p.setFont(ink.font(3.2, true));
    p.drawText(QRectF(QPointF(-5, 5) * mm, QSizeF(10, 5) * mm), Qt::AlignCenter, QObject::tr("N"));
    p.restore();
    const auto unit = ink.document().settings().display.unit;
    const double perUnit = metresPer(unit) * 1000 / plan.scale * mm;
    const double units = roundStep(8 * mm / perUnit);
    const QPointF at(r.left() + 24 * mm, r.top() + std::min(11.0 * mm, r.height() / 2));
    const double width = std::min(4 * units * perUnit, r.right() - at.x() - 8 * mm);
    const int pieces = std::max(1, static_cast<int>(width / (units * perUnit) + 1e-9));
    p.setPen(QPen(theme::ink, 0.25 * mm));
    p.setFont(ink.font(2.4));
    for (int k = 0; k < pieces; ++k) {
        p.setBrush(k % 2 == 0 ? QBrush(theme::ink) : QBrush(Qt::white));
        p.drawRect(QRectF(at.x() + k * units * perUnit, at.y(), units * perUnit, 1.6 * mm));
    }
    for (int k = 0; k <= pieces; ++k)
        p.drawText(QRectF(at.x() + k * units * perUnit - 10 * mm, at.y() + 2 * mm, 20 * mm, 4 * mm),
                   Qt::AlignCenter, text(formatExact(units * k)));
    p.setFont(ink.font(3.2, true));
    p.drawText(QRectF(at.x(), at.y() - 7 * mm, 60 * mm, 5 * mm), Qt::AlignLeft | Qt::AlignVCenter,
               QObject::tr("Scale 1 : %1   (%2)")
                   .arg(text(formatExact(plan.scale)), text(std::string(unitSymbol(unit)))));
    p.setBrush(Qt::NoBrush);
    p.restore();
}

void paintKeyPlan(const PaperInk& ink, const paper::Room& room) {
    const auto outlines = operations::planOutlines(ink.snapshot.derived);
    const auto& document = ink.document();
    const QRectF r = ink.room(room);
    geometry::Box box;
    const auto layers = planLayers();
    // Linework shows where one is; all else would be too small.
    const auto isShown = [&](const objects::Object& object) {
        return !document.hidden(object) && layerOf(layers, object).part() == PlanPart::Linework;
    };
    for (const auto& [id, object] : document.objects())
        if (isShown(*object)) layerOf(layers, *object).bounds(ink.snapshot.derived, id, box);
    for (const auto& outline : outlines)
        for (const Vec2 corner : outline.corners) box.add(corner);
    if (box.empty()) return ink.warn(r, QObject::tr("There is nothing for the key plan yet."));
    ViewTransform view;
    view.centre = box.centre();
    view.size = r.size();
    view.scale =
        0.92 * std::min(r.width() / std::max(box.width(), 1e-6), r.height() / std::max(box.height(), 1e-6));
    auto& p = ink.painter;
    p.save();
    p.setClipRect(r, Qt::IntersectClip);
    p.translate(r.topLeft());
    PlanOptions options;
    options.unit = 0.45 * millimetresPerPixel * ink.mm;
    options.off = {objects::allPlanParts.begin(), objects::allPlanParts.end()};
    options.off.erase(PlanPart::Linework);
    options.frame = true;
    options.cancel = ink.cancel;
    options.ground = false;
    options.source = false;
    options.showsObject = isShown;
    options.begins = [&ink](PlanPass pass) { ink.begin(layerName(pass)); };
    PlanPainter(p, ink.snapshot, view, layers, options).paint();
    ink.begin(QObject::tr("Frames"));
    const auto sheets = document.all<objects::Sheet>();
    for (const auto& outline : outlines) {
        const bool own = outline.sheet == ink.sheet;
        QPolygonF shape;
        for (const Vec2 corner : outline.corners) shape << view.toPicture(corner);
        p.setPen(QPen(own ? theme::clay : theme::ink, (own ? 0.6 : 0.3) * ink.mm));
        p.setBrush(Qt::NoBrush);
        p.drawPolygon(shape);
        const auto number =
            1 + std::distance(sheets.begin(), std::find(sheets.begin(), sheets.end(), outline.sheet));
        // Inside its upper left corner; frames of several sheets may lie over each other.
        const double letters = own ? 3.2 : 2.4;
        const QPointF in = shape[0] + (shape[2] - shape[0]) /
                                          std::hypot((shape[2] - shape[0]).x(), (shape[2] - shape[0]).y()) *
                                          (letters * ink.mm);
        p.setFont(ink.font(letters, own));
        p.drawText(QRectF(in - QPointF(4, 3) * ink.mm, QSizeF(8, 6) * ink.mm), Qt::AlignCenter,
                   QString::number(number));
    }
    p.restore();
}

}  // namespace erdwerk::app
