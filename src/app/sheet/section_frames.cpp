#include "app/sheet/section_frames.h"

#include <cmath>

#include "app/base/snapshot.h"
#include "app/base/theme.h"
#include "app/kinds/profile_section.h"
#include "app/plan/plan_painter.h"
#include "app/section/section_painter.h"
#include "app/sheet/drawing_file.h"
#include "core/derive/surface_result.h"
#include "core/objects/profile.h"
#include "core/objects/surface.h"
#include "core/route/cross_section.h"

namespace erdwerk::app {

namespace {

/// A pixel of the screen on paper.
constexpr double pixelMillimetres = 0.24;

double perUnitAt(const Snapshot& snapshot, double scale, double mm) {
    return metresPer(snapshot.derived.document.settings().display.unit) * 1000 / scale * mm;
}

/// One cross-section as what a long-section shows: offsets across, surfaces and lines up.
SectionData sectionData(const route::CrossSection& section, const std::vector<QString>& names) {
    static const std::array colours{theme::contourIndex, theme::alignment, theme::spruce, theme::ink};
    SectionData out;
    out.exaggeration = 1;
    for (std::size_t s = 0; s < section.surfaces.size(); ++s) {
        SectionSeries series{names[s], colours[s % colours.size()], 1.4, false, {}};
        for (const auto& p : section.surfaces[s]) series.points.push_back({p.offset, p.height});
        out.series.push_back(std::move(series));
    }
    return out;
}

}  // namespace

void paintProfile(QPainter& painter, const Snapshot& snapshot, const objects::ProfileFrame& of,
                  const QRectF& room, double mm) {
    const double u = pixelMillimetres * mm;
    SectionLook look;
    look.unit = u;
    look.handles = false;
    look.perUnit = perUnitAt(snapshot, of.scale, mm);
    look.scrolled = of.from;
    const auto data = profileSection(snapshot.derived, of.profile, roundStep(64 * u / look.perUnit));
    if (data.exaggeration > 0) look.highPerUnit = look.perUnit * data.exaggeration;
    auto frame = SectionPainter::frameFor(data, room, look);
    if (of.to > of.from) {
        QRectF part = room;
        const double taken = room.width() - frame.area.width();
        part.setWidth(std::min(room.width(), taken + (of.to - of.from) * look.perUnit));
        frame = SectionPainter::frameFor(data, part, look);
    }
    painter.save();
    painter.setClipRect(room);
    SectionPainter(painter, data, look).paint(frame);
    painter.restore();
}

SectionsPlaced paintCrossSections(QPainter& painter, const Snapshot& snapshot,
                                  const objects::SectionsFrame& sections, const QRectF& room, double mm) {
    SectionsPlaced placed;
    const auto& derived = snapshot.derived;
    const auto* alignment = derive::Derived::in(derived.alignments, sections.alignment);
    if (alignment == nullptr || alignment->path.empty()) return placed;
    std::vector<const terrain::TinLocator*> surfaces;
    std::vector<QString> names;
    // What is shown, and what a finished surface that is shown was made of.
    const auto shown = [&](ObjectId id) {
        const auto object = derived.document.find(id);
        return object && !derived.document.hidden(*object);
    };
    const auto underShown = [&](ObjectId id) {
        for (const ObjectId other : derived.document.all<objects::Surface>())
            if (shown(other) && derived.document.get<objects::Surface>(other)->definition->base == id)
                return true;
        return false;
    };
    for (const auto& [id, surface] : derived.surfaces) {
        const auto object = derived.document.find(id);
        if (!surface->locator || !object || !(shown(id) || underShown(id))) continue;
        surfaces.push_back(surface->locator.get());
        names.push_back(QString::fromStdString(object->name));
    }
    const auto all =
        route::crossSections(*alignment, sections.interval, surfaces, {}, {sections.reach, sections.reach});
    if (!all) return placed;
    placed.all = all->size();
    const double u = pixelMillimetres * mm;
    const double perUnit = perUnitAt(snapshot, sections.scale, mm);
    SectionLook look;
    look.unit = u;
    look.handles = false;
    const double width = 2 * sections.reach * perUnit + 70 * u;
    double left = room.left() + 4 * mm;
    double bottom = room.bottom() - 2 * mm;
    for (const auto& section : *all) {
        SectionData data = sectionData(section, names);
        const QString station = QString::fromStdString(formatStation(
            alignment->stationing.stationAt(section.distance), derived.document.settings().display));
        double low = 1e300;
        double high = -1e300;
        for (const auto& s : data.series)
            for (const auto& p : s.points)
                if (p.height) {
                    low = std::min(low, *p.height);
                    high = std::max(high, *p.height);
                }
        if (low > high) low = high = 0;
        const double margin = std::max((high - low) * 0.16, 0.2);
        // The room of the figures below, whatever the ground does.
        const double height = std::max((high - low + 2 * margin) * perUnit, 20 * u) + (34 + 24 + 18) * u;
        if (bottom - height < room.top()) {
            bottom = room.bottom() - 2 * mm;
            left += width;
        }
        if (left + width > room.right() || bottom - height < room.top()) break;
        const QRectF place(left, bottom - height, width, height - 18 * u);
        look.perUnit = look.highPerUnit = perUnit;
        look.legend = placed.drawn == 0;
        painter.save();
        SectionPainter(painter, data, look).paint(SectionPainter::frameFor(data, place, look));
        QFont font = theme::font(11, true);
        font.setPixelSize(std::max(1, static_cast<int>(std::lround(11 * u))));
        painter.setFont(font);
        painter.setPen(theme::alignment);
        QString words = station;
        if (section.cut > 0 || section.fill > 0)
            words +=
                QObject::tr("    cut %1   fill %2").arg(section.cut, 0, 'f', 2).arg(section.fill, 0, 'f', 2);
        painter.drawText(QRectF(place.left(), place.bottom(), place.width(), 16 * u), Qt::AlignCenter, words);
        painter.restore();
        bottom -= height;
        ++placed.drawn;
    }
    return placed;
}

Result<void> writeProfile(const QString& path, const Snapshot& snapshot, ObjectId id) {
    const auto& document = snapshot.derived.document;
    const auto* profile = document.get<objects::Profile>(id);
    const auto* a =
        profile == nullptr ? nullptr : derive::Derived::in(snapshot.derived.alignments, profile->alignment);
    if (a == nullptr || a->path.empty()) return fail(ErrorCode::NotFound, "there is no such profile");
    constexpr double most = 380;
    const double metres = a->length * metresPer(document.settings().display.unit);
    const double scale = profile->scale > 0 ? profile->scale : roundStep(metres * 1000 / most);
    const QSizeF size(metres * 1000 / scale + 40, 150);
    if (size.width() > 5000)
        return badInput("at that scale the drawing would be longer than 5 m; take a smaller scale");
    const QString title = QString::fromStdString(document.nameOf(id));
    const auto paint = [&](QPainter& painter, double mm, const DrawingLayer&) {
        const QRectF paper(0, 0, size.width() * mm, size.height() * mm);
        painter.fillRect(paper, Qt::white);
        QFont font = theme::font(14, true);
        font.setPixelSize(static_cast<int>(std::lround(4 * mm)));
        painter.setFont(font);
        painter.setPen(theme::ink);
        painter.drawText(QRectF(10 * mm, 4 * mm, paper.width() - 20 * mm, 6 * mm),
                         Qt::AlignLeft | Qt::AlignVCenter,
                         QObject::tr("%1   1 : %2").arg(title, QString::fromStdString(formatExact(scale))));
        paintProfile(painter, snapshot, {id, scale, 0, 0}, paper.adjusted(6 * mm, 12 * mm, -6 * mm, -4 * mm),
                     mm);
    };
    if (auto done = writeDrawings(path, {{size, title, paint}}); !done) return tl::unexpected(done.error());
    return {};
}

}  // namespace erdwerk::app
