#include "core/operations/sheets.h"

#include <algorithm>
#include <array>
#include <cmath>

#include "core/base/display.h"
#include "core/objects/artwork.h"
#include "core/objects/label.h"
#include "core/objects/profile.h"
#include "core/paper/stretches.h"
#include "core/paper/title_block.h"
#include "core/route/alignment.h"

namespace erdwerk::operations {

using paper::Room;

namespace {

Edit ofSheet(ObjectId sheet, std::function<Result<void>(const Document&, Sheet&)> change) {
    return [sheet, change = std::move(change)](const Document& d) -> Result<Edited> {
        const auto* old = d.get<Sheet>(sheet);
        if (old == nullptr) return badInput("the sheet is gone");
        Sheet next = *old;
        if (auto done = change(d, next); !done) return tl::unexpected(done.error());
        if (next == *old) return d;
        return d.withPayload(sheet, std::move(next));
    };
}

Edit ofFrame(ObjectId sheet, std::size_t frame,
             std::function<Result<void>(const Document&, Sheet&, Frame&)> change) {
    return ofSheet(sheet, [frame, change = std::move(change)](const Document& d, Sheet& s) -> Result<void> {
        if (frame >= s.frames.size()) return badInput("the frame is gone");
        return change(d, s, s.frames[frame]);
    });
}

Result<void> checkScale(double scale) {
    if (scale >= 1 && scale <= 1e6) return {};
    return badInput("a scale lies between 1 : 1 and 1 : 1000000");
}

Result<void> checkLetters(double letters) {
    if (letters >= 0.5 && letters <= 50) return {};
    return badInput("letters are between 0.5 and 50 mm high");
}

Result<void> checkContent(const FrameContent& content) {
    if (const auto* plan = std::get_if<PlanFrame>(&content)) {
        if (!std::isfinite(plan->centre.x) || !std::isfinite(plan->centre.y) ||
            !std::isfinite(plan->up.radians()))
            return badInput("the centre of a plan has an easting and a northing");
        if (plan->along && !(plan->to > plan->from))
            return badInput("a plan along an alignment has a length");
        return checkScale(plan->scale);
    }
    if (const auto* profile = std::get_if<ProfileFrame>(&content)) return checkScale(profile->scale);
    if (const auto* sections = std::get_if<SectionsFrame>(&content)) {
        if (!(sections->interval > 0) || !(sections->reach > 0) || !std::isfinite(sections->reach))
            return badInput("cross-sections have an interval and a reach above 0");
        return checkScale(sections->scale);
    }
    if (const auto* description = std::get_if<DescriptionFrame>(&content))
        return checkLetters(description->letters);
    if (const auto* notes = std::get_if<NotesFrame>(&content)) return checkLetters(notes->letters);
    return {};
}

/// Where a frame of that size lies over no other, from the upper left; else in the middle.
Room freeRoom(const Sheet& sheet, std::array<double, 2> size) {
    const Room inner = innerRoom(sheet);
    const double w = std::min(size[0], inner.width);
    const double h = std::min(size[1], inner.height);
    constexpr double step = 4;
    for (double y = inner.top; y + h <= inner.bottom() + 1e-9; y += step)
        for (double x = inner.left; x + w <= inner.right() + 1e-9; x += step) {
            const Room room{x, y, w, h};
            if (std::none_of(sheet.frames.begin(), sheet.frames.end(),
                             [&](const Frame& f) { return paper::overlap(f.room, room); }))
                return room;
        }
    return {inner.left + (inner.width - w) / 2, inner.top + (inner.height - h) / 2, w, h};
}

/// What was meant, else the only one or first of its kind.
template <class T>
Result<ObjectId> meant(const Document& d, ObjectId of, const char* none) {
    if (of && d.get<T>(of) != nullptr) return of;
    const auto all = d.all<T>();
    if (all.empty()) return badInput(none);
    return all.front();
}

struct Fill {
    const Document& document;
    const NewFrame& frame;
    const Room& room;

    Result<void> operator()(PlanFrame& f) const {
        f.centre = frame.centre;
        const double millimetres = frame.width * metresPer(document.settings().display.unit) * 1000;
        if (millimetres > 0) f.scale = std::max(1.0, roundStep(millimetres / room.width));
        return {};
    }
    Result<void> operator()(ProfileFrame& f) const {
        const auto id = meant<Profile>(document, frame.of, "there is no profile yet; make one first");
        if (!id) return tl::unexpected(id.error());
        f.profile = *id;
        if (const double scale = document.get<Profile>(*id)->scale; scale >= 1) f.scale = scale;
        return {};
    }
    Result<void> operator()(SectionsFrame& f) const {
        const auto id = meant<Alignment>(document, frame.of, "there is no alignment yet; make one first");
        if (id) f.alignment = *id;
        return id ? Result<void>{} : tl::unexpected(id.error());
    }
    Result<void> operator()(TableFrame& f) const {
        if (frame.of && document.get<Parcel>(frame.of) != nullptr) {
            f.of = frame.of;
            return {};
        }
        const auto id = meant<Table>(document, frame.of, "there is no table yet; make one first");
        if (id) f.of = *id;
        return id ? Result<void>{} : tl::unexpected(id.error());
    }
    Result<void> operator()(DescriptionFrame& f) const {
        const auto id = meant<Parcel>(document, frame.of, "there is no parcel yet; make one first");
        if (id) f.parcel = *id;
        return id ? Result<void>{} : tl::unexpected(id.error());
    }
    Result<void> operator()(PictureFrame& f) const {
        const auto id = meant<Artwork>(document, frame.of, "there is no picture yet; open one first");
        if (id) f.artwork = *id;
        return id ? Result<void>{} : tl::unexpected(id.error());
    }
    Result<void> operator()(TitleFrame& f) const {
        if (const auto* artwork = document.get<Artwork>(frame.of);
            artwork != nullptr && artwork->format == ArtworkFormat::Svg)
            f.artwork = frame.of;
        return {};
    }
    Result<void> operator()(NotesFrame& f) const {
        f.text = "Notes";
        return {};
    }
    Result<void> operator()(LegendFrame&) const { return {}; }
    Result<void> operator()(KeyPlanFrame&) const { return {}; }
    Result<void> operator()(ScaleFrame&) const { return {}; }
};

Result<void> checkPaper(const std::array<double, 2>& paper) {
    for (const double side : paper)
        if (!(side >= 50) || !(side <= 5000))
            return badInput("paper is between 50 and 5000 mm wide and high");
    return {};
}

}  // namespace

Edit newSheet(NewSheet options) {
    return [options = std::move(options)](const Document& d) -> Result<Edited> {
        if (auto fits = checkPaper(options.paper); !fits) return tl::unexpected(fits.error());
        SheetStart start;
        start.paper = options.paper;
        start.plan.centre = options.centre;
        start.parcel = options.parcel;
        const double millimetres = options.width * metresPer(d.settings().display.unit) * 1000;
        start.plan.scale =
            std::max(1.0, roundStep(millimetres / startedPlanRoom(options.paper, false).width));
        Sheet sheet = startedSheet(start);
        sheet.fields["project"] = d.settings().name;
        sheet.fields["title"] = options.parcel ? "Plan of " + d.nameOf(options.parcel) : "Site plan";
        sheet.fields["date"] = options.date;
        return d.added(document::freshName<Sheet>(d, "Sheet"), sheet);
    };
}

Edit copySheet(ObjectId sheet) {
    return [sheet](const Document& d) -> Result<Edited> {
        const auto* old = d.get<Sheet>(sheet);
        if (old == nullptr) return badInput("the sheet is gone");
        return d.added(document::freshName<Sheet>(d, d.nameOf(sheet)), *old);
    };
}

Edit setPaper(ObjectId sheet, std::array<double, 2> paper) {
    return ofSheet(sheet, [paper](const Document&, Sheet& s) -> Result<void> {
        if (auto fits = checkPaper(paper); !fits) return fits;
        s.paper = paper;
        return {};
    });
}

Edit setField(ObjectId sheet, std::string field, std::string text) {
    return ofSheet(sheet, [field = std::move(field), text = std::move(text)](const Document&, Sheet& s) {
        s.fields[field] = text;
        return Result<void>{};
    });
}

Edit setWeight(ObjectId sheet, double LineWeights::*layer, double millimetres) {
    return ofSheet(sheet, [layer, millimetres](const Document&, Sheet& s) -> Result<void> {
        if (!(millimetres >= 0.01) || !(millimetres <= 5))
            return badInput("a line is between 0.01 and 5 mm wide");
        s.weights.*layer = millimetres;
        return {};
    });
}

Edit addFrame(ObjectId sheet, NewFrame frame) {
    return ofSheet(sheet, [frame = std::move(frame)](const Document& d, Sheet& s) -> Result<void> {
        auto content = frame.content;
        const Room room = freeRoom(s, frameKind(content).usualSize);
        if (auto filled = std::visit(Fill{d, frame, room}, content); !filled) return filled;
        s.frames.push_back({room, std::move(content)});
        return {};
    });
}

bool isOnSheet(const Sheet& sheet, ObjectId table) {
    return std::any_of(sheet.frames.begin(), sheet.frames.end(),
                       [&](const Frame& f) { return f.content == FrameContent(TableFrame{table}); });
}

Edit setTableOnSheet(ObjectId table, ObjectId sheet, bool on) {
    if (on) return addFrame(sheet, {objects::TableFrame{}, table, {}, 0});
    return ofSheet(sheet, [table](const Document&, Sheet& s) {
        std::erase_if(s.frames, [&](const Frame& f) { return f.content == FrameContent(TableFrame{table}); });
        return Result<void>{};
    });
}

Edit removeFrame(ObjectId sheet, std::size_t frame) {
    return ofSheet(sheet, [frame](const Document&, Sheet& s) -> Result<void> {
        if (frame >= s.frames.size()) return badInput("the frame is gone");
        s.frames.erase(s.frames.begin() + static_cast<std::ptrdiff_t>(frame));
        return {};
    });
}

Edit setRoom(ObjectId sheet, std::size_t frame, Room room) {
    return ofFrame(sheet, frame, [room](const Document&, Sheet& s, Frame& f) -> Result<void> {
        if (!(room.width >= paper::leastRoom) || !(room.height >= paper::leastRoom))
            return badInput("a frame is at least " + formatExact(paper::leastRoom) + " mm wide and high");
        if (!paper::isWithin(room, paperRoom(s)))
            return badInput("there the frame would leave the paper of " + formatExact(s.paper[0]) + " x " +
                            formatExact(s.paper[1]) + " mm");
        f.room = room;
        return {};
    });
}

Edit bringFramesOnto(ObjectId sheet) {
    return ofSheet(sheet, [](const Document&, Sheet& s) {
        for (Frame& frame : s.frames)
            if (!paper::isWithin(frame.room, paperRoom(s)))
                frame.room = paper::broughtWithin(frame.room, paperRoom(s));
        return Result<void>{};
    });
}

Edit setFrameOrder(ObjectId sheet, std::size_t frame, bool onTop) {
    return ofSheet(sheet, [=](const Document&, Sheet& s) -> Result<void> {
        if (frame >= s.frames.size()) return badInput("the frame is gone");
        const auto at = s.frames.begin() + static_cast<std::ptrdiff_t>(frame);
        if (onTop)
            std::rotate(at, at + 1, s.frames.end());
        else
            std::rotate(s.frames.begin(), at, at + 1);
        return {};
    });
}

Edit setContent(ObjectId sheet, std::size_t frame,
                std::function<Result<void>(const Document&, FrameContent&)> change) {
    return ofFrame(sheet, frame,
                   [change = std::move(change)](const Document& d, Sheet&, Frame& f) -> Result<void> {
                       if (auto done = change(d, f.content); !done) return done;
                       return checkContent(f.content);
                   });
}

Edit layAlong(const Results& seen, ObjectId sheet, std::size_t frame, ObjectId alignment) {
    return ofFrame(sheet, frame, [=](const Document& d, Sheet&, Frame& f) -> Result<void> {
        auto* plan = std::get_if<PlanFrame>(&f.content);
        if (plan == nullptr) return badInput("the frame is another one by now");
        // Where it lies now stays, whatever becomes of the alignment.
        const auto lies = planOnPaper(*seen, *plan, f.room);
        plan->centre = lies.centre;
        plan->up = lies.up;
        plan->along = {};
        if (!alignment) return {};
        const auto* a = Derived::in(seen->alignments, alignment);
        if (a == nullptr || a->path.empty() || d.get<Alignment>(alignment) == nullptr)
            return badInput("the alignment has no line");
        plan->along = alignment;
        plan->from = 0;
        plan->to = a->length;
        return {};
    });
}

Edit moveInFrame(ObjectId sheet, std::size_t frame, double right, double down) {
    return setContent(sheet, frame, [=](const Document& d, FrameContent& content) -> Result<void> {
        auto* plan = std::get_if<PlanFrame>(&content);
        if (plan == nullptr) return badInput("only what a plan shows can be moved in its frame");
        if (plan->along) return badInput("the plan lies along " + d.nameOf(plan->along) + " and follows it");
        const double perMillimetre = plan->scale / 1000 / metresPer(d.settings().display.unit);
        const geometry::Vec2 up = geometry::directionOf(plan->up);
        // The ground goes with the hand, so the middle goes the other way.
        plan->centre = plan->centre - geometry::Vec2{up.y, -up.x} * (right * perMillimetre) +
                       up * (down * perMillimetre);
        return {};
    });
}

Edit setFramePart(ObjectId sheet, std::size_t frame, PlanPart part, bool shown) {
    return changeFrame<PlanFrame>(sheet, frame, [=](PlanFrame& f) {
        if (shown)
            f.shown.off.erase(part);
        else
            f.shown.off.insert(part);
    });
}

Edit setFrameShows(ObjectId sheet, std::size_t frame, ObjectId what, bool shown) {
    return setContent(sheet, frame, [=](const Document& d, FrameContent& content) -> Result<void> {
        auto* plan = std::get_if<PlanFrame>(&content);
        if (plan == nullptr) return badInput("the frame is another one by now");
        if (!d.find(what)) return badInput("what the frame would show is gone");
        if (!plan->shown.hide) plan->shown.hide = d.shown().hidden;
        if (shown)
            plan->shown.hide->erase(what);
        else
            plan->shown.hide->insert(what);
        return {};
    });
}

Edit showAsOnScreen(ObjectId sheet, std::size_t frame) {
    return changeFrame<PlanFrame>(sheet, frame, [](PlanFrame& f) { f.shown.hide.reset(); });
}

bool shownInFrame(const Document& document, const ShownInFrame& shown, const Object& object) {
    if (!shown.hide) return !document.hidden(object);
    if (shown.hide->count(object.id) != 0 || (object.group && shown.hide->count(object.group) != 0))
        return false;
    const auto* label = object.payload.as<Label>();
    return label == nullptr || shown.hide->count(label->style) == 0;
}

Edit sheetsAlong(Results seen, const SheetsAlong& options) {
    return [seen = std::move(seen), options](const Document& d) -> Result<Edited> {
        if (auto fits = checkPaper(options.paper); !fits) return tl::unexpected(fits.error());
        if (auto fits = checkScale(options.scale); !fits) return tl::unexpected(fits.error());
        const auto* a = Derived::in(seen->alignments, options.alignment);
        if (a == nullptr || a->path.empty() || d.get<Alignment>(options.alignment) == nullptr)
            return badInput("choose an alignment that runs along a line");
        // A strip below holds scale, key plan and title block; plan and profile share the rest.
        constexpr double strip = 42;
        const Sheet blank{options.paper, {}, {}, {}};
        const Room inner = innerRoom(blank);
        const double rest = inner.height - strip;
        const bool both = d.get<Profile>(options.profile) != nullptr;
        const Room plan{inner.left, inner.top, inner.width, both ? rest * 0.52 : rest};
        // Room for what lies beside the alignment, and for the rows' words at the profile's left.
        constexpr double atEnds = 22;
        constexpr double beside = 18;
        const double perMillimetre = options.scale / 1000 / metresPer(d.settings().display.unit);
        const auto stretches =
            paper::stretchesAlong(a->path, (plan.width - 2 * atEnds) * perMillimetre,
                                  (plan.height - 2 * beside) * perMillimetre, 10 * roundStep(perMillimetre));
        if (!stretches) return tl::unexpected(stretches.error());
        std::vector<NewObject> made;
        const std::string stem = d.nameOf(options.alignment);
        for (std::size_t i = 0; i < stretches->size(); ++i) {
            const auto& stretch = (*stretches)[i];
            const auto lies = paper::turnedAlong(a->path, stretch.from, stretch.to);
            Sheet sheet = blank;
            PlanFrame frame{lies.centre,  options.scale, lies.up, options.alignment,
                            stretch.from, stretch.to,    {}};
            sheet.frames.push_back({plan, frame});
            if (both)
                sheet.frames.push_back(
                    {{inner.left, plan.bottom(), inner.width, rest - plan.height},
                     ProfileFrame{options.profile, options.scale, stretch.from, stretch.to}});
            const double title = std::min(96.0, inner.width / 3);
            const double y = inner.bottom() - strip;
            sheet.frames.push_back({{inner.left + 3, y + 9, title - 6, 24}, ScaleFrame{}});
            if (const double between = inner.width - 3 * title - 6; between > 50)
                sheet.frames.push_back({{inner.left + title + 3, y + 2, between, strip - 4}, LegendFrame{}});
            sheet.frames.push_back({{inner.right() - 2 * title, y, title, strip}, KeyPlanFrame{}});
            sheet.frames.push_back({{inner.right() - title, y, title, strip}, TitleFrame{}});
            sheet.fields["project"] = d.settings().name;
            sheet.fields["title"] = stem + (both ? ": plan and profile" : ": plan");
            sheet.fields["date"] = options.date;
            made.push_back(
                {stretches->size() == 1 ? stem : stem + " " + std::to_string(i + 1), std::move(sheet)});
        }
        return Edited(d.addedAll(std::move(made)),
                      "Make " + std::to_string(stretches->size()) + " sheets along " + stem);
    };
}

Result<Artwork> artworkFrom(std::string bytes) {
    Artwork out;
    if (bytes.size() > largestArtwork)
        return badInput("is larger than " + std::to_string(largestArtwork >> 20U) + " MB");
    if (bytes.rfind("\x89PNG\r\n\x1a\n", 0) == 0) {
        out.format = ArtworkFormat::Png;
    } else if (bytes.rfind("\xFF\xD8\xFF", 0) == 0) {
        out.format = ArtworkFormat::Jpeg;
    } else {
        const auto block = paper::readTitleBlock(bytes);
        if (!block) {
            Error error = block.error();
            error.text += "; a title block is an SVG, a picture SVG, PNG or JPEG";
            return tl::unexpected(error);
        }
    }
    out.bytes = std::make_shared<const std::string>(std::move(bytes));
    return out;
}

Edit putArtwork(std::string name, Artwork artwork) {
    return [name = std::move(name), artwork = std::move(artwork)](const Document& d) -> Result<Edited> {
        for (const ObjectId id : d.all<Artwork>())
            if (d.nameOf(id) == name) return d.withPayload(id, artwork);
        return d.added(name, artwork);
    };
}

}  // namespace erdwerk::operations
