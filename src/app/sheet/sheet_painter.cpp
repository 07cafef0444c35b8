#include "app/sheet/sheet_painter.h"

#include <QPageSize>
#include <QPrinter>
#include <cmath>

#include "app/base/theme.h"
#include "app/kinds/all_kinds.h"
#include "app/plan/plan_painter.h"
#include "app/sheet/drawing_file.h"
#include "app/sheet/section_frames.h"
#include "app/sheet/table_frame.h"
#include "app/sheet/text_recorder.h"

namespace erdwerk::app {

namespace {

class SheetPainter {
public:
    SheetPainter(QPainter& painter, const Snapshot& snapshot, ObjectId id, double mm)
        : p_(painter),
          snapshot_(snapshot),
          document_(snapshot.derived.document),
          sheet_(*document_.get<objects::Sheet>(id)),
          name_(QString::fromStdString(document_.nameOf(id))),
          mm_(mm) {
        const auto size = objects::paperSize(sheet_.paper);
        paper_ = QRectF(0, 0, size[0] * mm, size[1] * mm);
        const double panel = objects::panelWidth(sheet_.paper) * mm;
        const double margin = objects::sheetMargin;
        const QRectF inner = paper_.adjusted(margin * mm, margin * mm, -margin * mm, -margin * mm);
        plan_ = inner.adjusted(0, 0, -panel, 0);
        panel_ = QRectF(plan_.right(), inner.top(), panel, inner.height());
        if (sheet_.profile) {
            below_ = plan_;
            plan_.setHeight(objects::planSize(sheet_)[1] * mm);
            below_.setTop(plan_.bottom());
        }
    }

    void paint() {
        p_.setRenderHint(QPainter::Antialiasing);
        p_.fillRect(paper_, Qt::white);
        if (sheet_.sections.alignment)
            crossSections();
        else
            plan();
        if (sheet_.profile) paintProfile(p_, snapshot_, sheet_.profile, below_, mm_, sheet_.scale);
        frame();
        double y = panel_.top() + 5 * mm_;
        northArrow(y);
        scaleBar(y);
        y += 26 * mm_;
        tables(y);
        if (const auto it = snapshot_.derived.parcels.find(sheet_.parcel);
            it != snapshot_.derived.parcels.end()) {
            description(*it->second, y);
        }
        titleBlock();
    }

    [[nodiscard]] const TextsShown& texts() const { return texts_; }

private:
    [[nodiscard]] QFont font(double millimetres, bool strong = false) const {
        QFont f = theme::font(10, strong);
        f.setPixelSize(std::max(1, static_cast<int>(std::lround(millimetres * mm_))));
        return f;
    }

    void plan() {
        p_.save();
        p_.setClipRect(plan_);
        p_.translate(plan_.topLeft());
        ViewTransform view;
        view.centre = sheet_.centre;
        // True to scale: so many paper units for a ground unit.
        view.scale = metresPer(document_.settings().display.unit) * 1000 / sheet_.scale * mm_;
        view.size = plan_.size();
        PlanOptions options;
        options.unit = 0.24 * mm_;
        options.off = sheet_.off;
        // Paper stays white: what covers the ground is for the screen.
        options.off.insert(
            {objects::PlanPart::GroundColours, objects::PlanPart::Clouds, objects::PlanPart::Backdrops});
        options.frame = true;
        PlanPainter plan(p_, snapshot_, view, planLayers(), options);
        plan.paint();
        texts_ = plan.texts();
        p_.restore();
    }

    void crossSections() {
        const auto placed = paintCrossSections(p_, snapshot_, sheet_.sections, plan_, mm_, sheet_.scale);
        if (placed.drawn == placed.all) return;
        // What has no room is said on the sheet itself.
        p_.setFont(font(3));
        p_.setPen(theme::madder);
        p_.drawText(plan_.adjusted(3 * mm_, 2 * mm_, -3 * mm_, 0), Qt::AlignRight | Qt::AlignTop,
                    QObject::tr("%1 of %2 cross-sections: the others have no room at this scale")
                        .arg(placed.drawn)
                        .arg(placed.all));
    }

    void frame() {
        p_.setBrush(Qt::NoBrush);
        p_.setPen(QPen(theme::ink, 0.5 * mm_));
        p_.drawRect(plan_);
        if (sheet_.profile) p_.drawRect(below_);
        p_.drawRect(panel_);
    }

    void northArrow(double y) {
        const QPointF n(panel_.left() + 12 * mm_, y + 9 * mm_);
        p_.setPen(QPen(theme::ink, 0.3 * mm_));
        p_.setBrush(Qt::white);
        p_.drawPolygon(
            QPolygonF{n + QPointF(0, -9) * mm_, n + QPointF(3, 5) * mm_, n + QPointF(0, 2.6) * mm_});
        p_.setBrush(theme::ink);
        p_.drawPolygon(
            QPolygonF{n + QPointF(0, -9) * mm_, n + QPointF(-3, 5) * mm_, n + QPointF(0, 2.6) * mm_});
        p_.setFont(font(3.4, true));
        p_.drawText(QRectF(n + QPointF(-5, 5.5) * mm_, QSizeF(10 * mm_, 5 * mm_)), Qt::AlignCenter,
                    QObject::tr("N"));
    }

    void scaleBar(double y) {
        const double perUnit = metresPer(document_.settings().display.unit) * 1000 / sheet_.scale * mm_;
        const double units = roundStep(8 * mm_ / perUnit);
        const QPointF at(panel_.left() + 26 * mm_, y + 8 * mm_);
        const double width = std::min(4 * units * perUnit, panel_.right() - at.x() - 8 * mm_);
        const int pieces = std::max(1, static_cast<int>(width / (units * perUnit) + 1e-9));
        p_.setPen(QPen(theme::ink, 0.25 * mm_));
        p_.setFont(font(2.4));
        for (int k = 0; k < pieces; ++k) {
            p_.setBrush(k % 2 == 0 ? QBrush(theme::ink) : QBrush(Qt::white));
            p_.drawRect(QRectF(at.x() + k * units * perUnit, at.y(), units * perUnit, 1.6 * mm_));
        }
        for (int k = 0; k <= pieces; ++k)
            p_.drawText(QRectF(at.x() + k * units * perUnit - 10 * mm_, at.y() + 2 * mm_, 20 * mm_, 4 * mm_),
                        Qt::AlignCenter, QString::fromStdString(formatExact(units * k)));
        p_.setFont(font(3.2, true));
        p_.drawText(QRectF(at.x(), at.y() - 7 * mm_, 60 * mm_, 5 * mm_), Qt::AlignLeft | Qt::AlignVCenter,
                    QObject::tr("Scale 1 : %1   (%2)")
                        .arg(QString::fromStdString(formatExact(sheet_.scale)),
                             QString::fromUtf8(unitSymbol(document_.settings().display.unit).data())));
    }

    /// A table below what stands in the panel already.
    void table(const objects::Table& of, const QString& title, double& y) {
        const auto rows = operations::recordRows(snapshot_.derived, of);
        const QRectF room(panel_.left() + 3 * mm_, y, panel_.width() - 6 * mm_,
                          panel_.bottom() - 46 * mm_ - y);
        if (!rows || room.height() < 12 * mm_) {
            // What is wrong, or has no room, is said on the sheet itself.
            p_.setPen(theme::madder);
            p_.setFont(font(2.3));
            p_.drawText(
                QRectF(room.left(), y, room.width(), 5 * mm_), Qt::AlignLeft | Qt::AlignVCenter,
                rows ? QObject::tr("%1: no room here").arg(title)
                     : QObject::tr("%1: %2").arg(title, QString::fromStdString(rows.error().message())));
            y += 6 * mm_;
            return;
        }
        y = paintTable(p_, *rows, title, room, mm_) + 3 * mm_;
    }

    void tables(double& y) {
        if (snapshot_.derived.parcels.count(sheet_.parcel) != 0)
            table({objects::TableSort::Courses,
                   {sheet_.parcel},
                   {"course", "direction", "distance", "radius", "delta", "arc"},
                   {},
                   false,
                   {}},
                  QObject::tr("Courses of %1").arg(QString::fromStdString(document_.nameOf(sheet_.parcel))),
                  y);
        for (const ObjectId id : sheet_.tables)
            if (const auto* of = document_.get<objects::Table>(id))
                table(*of, QString::fromStdString(document_.nameOf(id)), y);
        // Sides that are too short for their text on this sheet.
        objects::Table tags{objects::TableSort::Tags,
                            {},
                            {"tag", "direction", "distance", "radius", "delta", "arc"},
                            "tag",
                            false,
                            {}};
        for (const auto& [id, shown] : texts_.shown)
            if (shown.tag) tags.of.push_back(id);
        if (!tags.of.empty()) table(tags, QObject::tr("Tagged sides"), y);
    }

    void description(const derive::ParcelResult& parcel, double& y) {
        const double bottom = panel_.bottom() - 46 * mm_;
        const QRectF room(panel_.left() + 3 * mm_, y, panel_.width() - 6 * mm_, bottom - y);
        if (room.height() < 14 * mm_) return;
        const QRectF body = room.adjusted(0, 6 * mm_, 0, 0);
        const QString text = QString::fromStdString(parcel.description);
        // As large as fits, down to a legible 1.7 mm.
        double size = 2.6;
        const auto fits = [&] {
            return QFontMetricsF(font(size))
                       .boundingRect(body, Qt::AlignLeft | Qt::TextWordWrap, text)
                       .height() <= body.height();
        };
        while (size > 1.7 && !fits()) size -= 0.1;
        p_.setPen(theme::ink);
        p_.setFont(font(3.4, true));
        p_.drawText(room, Qt::AlignLeft | Qt::AlignTop, QObject::tr("Description"));
        p_.setFont(font(fits() ? size : 2.3));
        if (!fits()) p_.setPen(theme::madder);
        p_.drawText(body, Qt::AlignLeft | Qt::AlignTop | Qt::TextWordWrap,
                    fits() ? text : QObject::tr("The description is too long for this sheet."));
    }

    void titleBlock() {
        const QRectF block(panel_.left(), panel_.bottom() - 42 * mm_, panel_.width(), 42 * mm_);
        p_.setPen(QPen(theme::ink, 0.5 * mm_));
        p_.drawLine(block.topLeft(), block.topRight());
        const double left = block.left() + 3 * mm_;
        const double width = block.width() - 6 * mm_;
        p_.setFont(font(3));
        p_.setPen(theme::inkQuiet);
        p_.drawText(QRectF(left, block.top() + 3 * mm_, width, 5 * mm_), Qt::AlignLeft | Qt::AlignVCenter,
                    QString::fromStdString(sheet_.project));
        p_.setFont(font(5, true));
        p_.setPen(theme::ink);
        p_.drawText(QRectF(left, block.top() + 8 * mm_, width, 12 * mm_),
                    Qt::AlignLeft | Qt::AlignVCenter | Qt::TextWordWrap,
                    QString::fromStdString(sheet_.title));
        const std::array<std::pair<QString, QString>, 4> cells{
            std::pair{QObject::tr("Drawn by"), QString::fromStdString(sheet_.drawnBy)},
            {QObject::tr("Date"), QString::fromStdString(sheet_.date)},
            {QObject::tr("Scale"),
             QStringLiteral("1 : ") + QString::fromStdString(formatExact(sheet_.scale))},
            {QObject::tr("Sheet"), name_}};
        for (std::size_t i = 0; i < cells.size(); ++i) {
            const QRectF cell(left + (i % 2 == 0 ? 0 : width / 2), block.top() + (i < 2 ? 22 : 31) * mm_,
                              width / 2, 9 * mm_);
            p_.setFont(font(2.2));
            p_.setPen(theme::inkQuiet);
            p_.drawText(cell, Qt::AlignLeft | Qt::AlignTop, cells[i].first);
            p_.setFont(font(3));
            p_.setPen(theme::ink);
            p_.drawText(cell.adjusted(0, 3.2 * mm_, 0, 0), Qt::AlignLeft | Qt::AlignTop, cells[i].second);
        }
    }

    QPainter& p_;
    const Snapshot& snapshot_;
    const document::Document& document_;
    objects::Sheet sheet_;
    QString name_;
    double mm_;
    QRectF paper_;
    QRectF plan_;
    QRectF panel_;
    QRectF below_;  ///< the profile, under the plan
    TextsShown texts_;
};

}  // namespace

TextsShown paintSheet(QPainter& painter, const Snapshot& snapshot, ObjectId sheet, double perMillimetre) {
    SheetPainter sheetPainter(painter, snapshot, sheet, perMillimetre);
    sheetPainter.paint();
    return sheetPainter.texts();
}

SheetTexts textsOn(const Snapshot& snapshot, ObjectId id) {
    constexpr double perMillimetre = 600 / 25.4;
    const auto size = objects::paperSize(snapshot.derived.document.get<objects::Sheet>(id)->paper);
    TextRecorder recorder(QSizeF(size[0], size[1]) * perMillimetre);
    QPainter painter(&recorder);
    const auto shown = paintSheet(painter, snapshot, id, perMillimetre);
    painter.end();
    return {recorder.overlaps(), shown.without};
}

Result<QStringList> writeSheets(const QString& path, const Snapshot& snapshot,
                                const std::vector<ObjectId>& ids) {
    std::vector<Drawing> drawings;
    for (const ObjectId id : ids) {
        const auto* sheet = snapshot.derived.document.get<objects::Sheet>(id);
        if (sheet == nullptr) return fail(ErrorCode::NotFound, "there is no such sheet");
        const auto size = objects::paperSize(sheet->paper);
        drawings.push_back({QSizeF(size[0], size[1]), QString::fromStdString(sheet->title),
                            [&snapshot, id](QPainter& painter, double perMillimetre) {
                                paintSheet(painter, snapshot, id, perMillimetre);
                            }});
    }
    return writeDrawings(path, drawings);
}

Result<void> printSheet(QPrinter& printer, const Snapshot& snapshot, ObjectId id) {
    const auto* sheet = snapshot.derived.document.get<objects::Sheet>(id);
    if (sheet == nullptr) return fail(ErrorCode::NotFound, "there is no such sheet");
    const auto size = objects::paperSize(sheet->paper);
    printer.setFullPage(true);
    printer.setPageSize(QPageSize(QSizeF(size[0], size[1]), QPageSize::Millimeter));
    printer.setPageMargins(QMarginsF(0, 0, 0, 0));
    QPainter painter;
    if (!painter.begin(&printer)) return fail(ErrorCode::Io, "the printer takes nothing");
    paintSheet(painter, snapshot, id, printer.resolution() / 25.4);
    if (!painter.end()) return fail(ErrorCode::Io, "the printer takes nothing");
    return {};
}

Result<void> printPlan(QPrinter& printer, const Snapshot& snapshot, const ViewTransform& view) {
    printer.setPageOrientation(view.size.width() > view.size.height() ? QPageLayout::Landscape
                                                                      : QPageLayout::Portrait);
    QPainter painter;
    if (!painter.begin(&printer)) return fail(ErrorCode::Io, "the printer takes nothing");
    const QRectF page(painter.viewport());
    const double factor = std::min(page.width() / view.size.width(), page.height() / view.size.height());
    ViewTransform onPage = view;
    onPage.size = view.size * factor;
    onPage.scale = view.scale * factor;
    PlanOptions options;
    options.unit = factor;
    options.off = snapshot.derived.document.shown().off;
    painter.setClipRect(QRectF({0, 0}, onPage.size));
    PlanPainter(painter, snapshot, onPage, planLayers(), options).paint();
    if (!painter.end()) return fail(ErrorCode::Io, "the printer takes nothing");
    return {};
}

}  // namespace erdwerk::app
