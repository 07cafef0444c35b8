#include "app/sheet/sheet_painter.h"

#include <cmath>

#include "app/base/theme.h"
#include "app/kinds/all_kinds.h"
#include "app/sheet/legend_frame.h"
#include "app/sheet/plan_frames.h"
#include "app/sheet/section_frames.h"
#include "app/sheet/table_frame.h"
#include "app/sheet/text_frames.h"
#include "app/sheet/text_recorder.h"

namespace erdwerk::app {

namespace {

/// Paints what a frame holds.
struct ContentPainter {
    const PaperInk& ink;
    const paper::Room& room;
    SheetShown& shown;

    void outline() const {
        ink.begin(QObject::tr("Frames"));
        ink.painter.setBrush(Qt::NoBrush);
        ink.painter.setPen(QPen(theme::ink, 0.35 * ink.mm));
        ink.painter.drawRect(ink.room(room));
    }
    void operator()(const objects::PlanFrame& f) const {
        const auto texts = paintPlanFrame(ink, f, room);
        shown.texts.texts += texts.texts;
        shown.texts.without += texts.without;
        shown.texts.shown.insert(texts.shown.begin(), texts.shown.end());
        shown.texts.leftOut.insert(texts.leftOut.begin(), texts.leftOut.end());
        shown.texts.missing.insert(texts.missing.begin(), texts.missing.end());
        outline();
    }
    void operator()(const objects::ProfileFrame& f) const {
        ink.begin(QObject::tr("Profile"));
        if (ink.document().get<objects::Profile>(f.profile) == nullptr)
            ink.warn(ink.room(room), QObject::tr("There is no profile in this frame."));
        else
            paintProfile(ink.painter, ink.snapshot, f,
                         ink.room({room.left + 3, room.top + 1, room.width - 6, room.height - 2}), ink.mm);
        outline();
    }
    void operator()(const objects::SectionsFrame& f) const {
        ink.begin(QObject::tr("Cross-sections"));
        const auto placed = paintCrossSections(ink.painter, ink.snapshot, f, ink.room(room), ink.mm);
        if (placed.drawn < placed.all || placed.all == 0)
            ink.warn(ink.room({room.left + 3, room.top + 2, room.width - 6, 6}),
                     placed.all == 0
                         ? QObject::tr("There are no cross-sections: choose an alignment over a surface.")
                         : QObject::tr("%1 of %2 cross-sections: the others have no room at this scale")
                               .arg(placed.drawn)
                               .arg(placed.all));
        outline();
    }
    void operator()(const objects::TableFrame& f) const {
        ink.begin(QObject::tr("Tables"));
        if (!f.of) {
            // Sides that are too short for their text in the plans so far.
            objects::Table tags{objects::TableSort::Tags,
                                {},
                                {"tag", "direction", "distance", "radius", "delta", "arc"},
                                "tag",
                                false,
                                {}};
            for (const auto& [id, of] : shown.texts.shown)
                if (of.tag) tags.of.push_back(id);
            if (!tags.of.empty()) table(tags, QObject::tr("Tagged sides"));
            return;
        }
        if (const auto* of = ink.document().get<objects::Table>(f.of))
            return table(*of, text(ink.document().nameOf(f.of)));
        table({objects::TableSort::Courses,
               {f.of},
               {"course", "direction", "distance", "radius", "delta", "arc"},
               {},
               false,
               {}},
              QObject::tr("Courses of %1").arg(text(ink.document().nameOf(f.of))));
    }
    void operator()(const objects::DescriptionFrame& f) const {
        ink.begin(QObject::tr("Description"));
        paintDescription(ink, f, room);
    }
    void operator()(const objects::LegendFrame&) const {
        ink.begin(QObject::tr("Legend"));
        paintLegend(ink, room);
    }
    void operator()(const objects::KeyPlanFrame&) const {
        paintKeyPlan(ink, room);
        outline();
    }
    void operator()(const objects::ScaleFrame&) const {
        ink.begin(QObject::tr("Frames"));
        paintScale(ink, room);
    }
    void operator()(const objects::PictureFrame& f) const {
        ink.begin(QObject::tr("Pictures"));
        paintPicture(ink, f, room);
    }
    void operator()(const objects::TitleFrame& f) const {
        ink.begin(QObject::tr("Title block"));
        shown.noFonts << paintTitle(ink, f, room);
    }
    void operator()(const objects::NotesFrame& f) const {
        ink.begin(QObject::tr("Notes"));
        paintNotes(ink, f, room);
    }

private:
    void table(const objects::Table& of, const QString& title) const {
        const auto rows = operations::recordRows(ink.snapshot.derived, of);
        if (!rows)
            ink.warn(ink.room(room),
                     QObject::tr("%1: %2").arg(title, QString::fromStdString(rows.error().message())));
        else if (room.height < 12)
            ink.warn(ink.room(room), QObject::tr("%1: no room here").arg(title));
        else
            paintTable(ink.painter, *rows, title, ink.room(room), ink.mm);
    }
};

}  // namespace

void paintFrame(const PaperInk& ink, std::size_t frame, SheetShown& shown) {
    const auto& of = ink.of().frames[frame];
    ink.painter.save();
    std::visit(ContentPainter{ink, of.room, shown}, of.content);
    ink.painter.restore();
}

SheetShown paintSheet(QPainter& painter, const Snapshot& snapshot, ObjectId sheet, double perMillimetre,
                      const std::function<void(const QString&)>& layer, const std::atomic<bool>* cancel) {
    const PaperInk ink{painter, snapshot, sheet, perMillimetre, layer, cancel};
    SheetShown shown;
    painter.setRenderHint(QPainter::Antialiasing);
    ink.begin(QObject::tr("Frames"));
    painter.fillRect(ink.room(objects::paperRoom(ink.of())), Qt::white);
    for (std::size_t i = 0; i < ink.of().frames.size(); ++i) {
        if (cancel != nullptr && cancel->load()) return shown;
        paintFrame(ink, i, shown);
    }
    ink.begin(QObject::tr("Frames"));
    painter.setBrush(Qt::NoBrush);
    painter.setPen(QPen(theme::ink, 0.5 * perMillimetre));
    painter.drawRect(ink.room(objects::innerRoom(ink.of())));
    return shown;
}

SheetTexts textsOn(const Snapshot& snapshot, ObjectId id) {
    constexpr double perMillimetre = 600 / 25.4;
    const auto& size = snapshot.derived.document.get<objects::Sheet>(id)->paper;
    TextRecorder recorder(QSizeF(size[0], size[1]) * perMillimetre);
    QPainter painter(&recorder);
    const auto shown = paintSheet(painter, snapshot, id, perMillimetre);
    painter.end();
    return {recorder.overlaps(), shown.texts.without, shown.noFonts};
}

}  // namespace erdwerk::app
