#include "app/sheet/text_frames.h"

#include <QAbstractTextDocumentLayout>
#include <QFontDatabase>
#include <QSvgRenderer>
#include <QTextDocument>
#include <cmath>

#include "app/base/text_document.h"
#include "app/base/theme.h"
#include "core/derive/parcel_result.h"
#include "core/objects/artwork.h"
#include "core/operations/sheet_layout.h"
#include "core/paper/title_block.h"

namespace erdwerk::app {

namespace {

/// Texts are laid out in twentieths of a millimetre.
constexpr double fine = 20;

void layOut(QTextDocument& of, double letters, double width) {
    QFont font = theme::font(10);
    font.setPixelSize(std::max(1, static_cast<int>(std::lround(letters * fine))));
    of.setDefaultFont(font);
    of.setDocumentMargin(0);
    of.setTextWidth(width * fine);
}

/// As large as asked for, or as it fits, down to letters of 1.7 mm; false when it does not.
bool paintText(const PaperInk& ink, QTextDocument& of, double letters, const paper::Room& room) {
    double size = letters;
    layOut(of, size, room.width);
    while (of.size().height() > room.height * fine && size > 1.7) layOut(of, size -= 0.1, room.width);
    if (of.size().height() > room.height * fine) return false;
    ink.painter.save();
    ink.painter.translate(ink.room(room).topLeft());
    ink.painter.scale(ink.mm / fine, ink.mm / fine);
    QAbstractTextDocumentLayout::PaintContext context;
    context.palette.setColor(QPalette::Text, theme::ink);
    of.documentLayout()->draw(&ink.painter, context);
    ink.painter.restore();
    return true;
}

QRectF fitted(const QRectF& room, const QSizeF& size, bool toCorner) {
    const double factor = std::min(room.width() / size.width(), room.height() / size.height());
    const QSizeF at = size * factor;
    if (toCorner) return {room.right() - at.width(), room.bottom() - at.height(), at.width(), at.height()};
    return {room.center().x() - at.width() / 2, room.center().y() - at.height() / 2, at.width(), at.height()};
}

/// A line of a title block; `mm`: picture units for one of its millimetres.
void writeLine(const PaperInk& ink, const paper::BlockText& line, QPointF corner, double mm) {
    if (line.text.empty()) return;
    auto& p = ink.painter;
    QFont font = theme::font(10, line.strong);
    if (!line.family.empty()) font.setFamily(QString::fromStdString(line.family));
    if (line.strong) font.setWeight(QFont::Bold);
    // Laid out large and drawn small: letters keep their widths whatever the picture's resolution.
    font.setPixelSize(100);
    const QString words = QString::fromStdString(line.text);
    const double width = QFontMetricsF(font).horizontalAdvance(words);
    const double before = line.anchor == "end" ? width : line.anchor == "middle" ? width / 2 : 0;
    p.save();
    p.translate(corner + QPointF(line.x, line.y) * mm);
    p.scale(line.size * mm / 100, line.size * mm / 100);
    p.setFont(font);
    const QColor colour(QString::fromStdString(line.fill));
    p.setPen(colour.isValid() ? colour : theme::ink);
    p.drawText(QPointF(-before, 0), words);
    p.restore();
}

}  // namespace

void paintDescription(const PaperInk& ink, const objects::DescriptionFrame& frame, const paper::Room& room) {
    const auto* parcel = derive::Derived::in(ink.snapshot.derived.parcels, frame.parcel);
    if (parcel == nullptr) return ink.warn(ink.room(room), QObject::tr("The parcel has no description."));
    ink.painter.setPen(theme::ink);
    ink.painter.setFont(ink.font(3.4, true));
    const paper::Room head{room.left, room.top, room.width, 5};
    ink.painter.drawText(ink.room(head), Qt::AlignLeft | Qt::AlignVCenter, QObject::tr("Description"));
    paper::Room body = room;
    body.top += 6;
    body.height -= 6;
    const auto of = textDocument(QString::fromStdString(parcel->description));
    if (body.height < 2 || !paintText(ink, *of, frame.letters, body))
        ink.warn(ink.room(body), QObject::tr("The description is too long for this frame."));
}

void paintNotes(const PaperInk& ink, const objects::NotesFrame& frame, const paper::Room& room) {
    QTextDocument of;
    of.setPlainText(QString::fromStdString(frame.text));
    if (!paintText(ink, of, frame.letters, room))
        ink.warn(ink.room(room), QObject::tr("The notes are too long for this frame."));
}

QStringList paintTitle(const PaperInk& ink, const objects::TitleFrame& frame, const paper::Room& room) {
    const auto* artwork = ink.document().get<objects::Artwork>(frame.artwork);
    const std::string_view svg =
        artwork == nullptr ? paper::shippedTitleBlock() : std::string_view(*artwork->bytes);
    const auto block = paper::readTitleBlock(svg);
    if (!block) {
        ink.warn(ink.room(room), QString::fromStdString(block.error().message()));
        return {};
    }
    const QString family =
        block->families.empty() ? QString() : QString::fromStdString(block->families.front());
    const auto measure = [&](const std::string& words, double size, bool strong) {
        QFont font = theme::font(10, strong);
        if (!family.isEmpty()) font.setFamily(family);
        font.setPixelSize(100);
        if (strong) font.setWeight(QFont::Bold);
        return QFontMetricsF(font).horizontalAdvance(QString::fromStdString(words)) * size / 100;
    };
    const auto filled =
        paper::filledTitleBlock(svg, operations::titleValues(ink.document(), ink.sheet), measure);
    const QRectF at = fitted(ink.room(room), QSizeF(block->width, block->height), true);
    QSvgRenderer renderer(QByteArray::fromStdString(filled.svg));
    renderer.render(&ink.painter, at);
    // Texts are written as texts, so that they can be found.
    for (const auto& line : filled.texts) writeLine(ink, line, at.topLeft(), at.width() / block->width);
    QStringList missing;
    const QStringList known = QFontDatabase::families();
    for (const auto& name : block->families)
        if (const QString wanted = QString::fromStdString(name);
            !known.contains(wanted, Qt::CaseInsensitive) && wanted != QStringLiteral("sans-serif") &&
            wanted != QStringLiteral("serif") && wanted != QStringLiteral("monospace"))
            missing << wanted;
    return missing;
}

void paintPicture(const PaperInk& ink, const objects::PictureFrame& frame, const paper::Room& room) {
    const auto* artwork = ink.document().get<objects::Artwork>(frame.artwork);
    if (artwork == nullptr) return ink.warn(ink.room(room), QObject::tr("The picture is gone."));
    const auto bytes =
        QByteArray::fromRawData(artwork->bytes->data(), static_cast<qsizetype>(artwork->bytes->size()));
    if (artwork->format == objects::ArtworkFormat::Svg) {
        QSvgRenderer renderer(bytes);
        if (!renderer.isValid()) return ink.warn(ink.room(room), QObject::tr("The SVG cannot be drawn."));
        renderer.render(&ink.painter, fitted(ink.room(room), renderer.viewBoxF().size(), false));
        return;
    }
    const QImage image = QImage::fromData(bytes);
    if (image.isNull()) return ink.warn(ink.room(room), QObject::tr("The picture cannot be read."));
    ink.painter.setRenderHint(QPainter::SmoothPixmapTransform);
    ink.painter.drawImage(fitted(ink.room(room), image.size(), false), image);
}

}  // namespace erdwerk::app
