#pragma once
// Sheets and their frames, as edits. A frame is named by its place in its sheet; an edit of one that is gone,
// or is of another kind by now, is BadInput.

#include "core/operations/lines.h"
#include "core/operations/sheet_layout.h"

namespace erdwerk::operations {

struct NewSheet {
    std::array<double, 2> paper = {420, 297};
    geometry::Vec2 centre;
    double width = 0;  ///< of what the plan shows, in project units
    ObjectId parcel;   ///< whose courses and description it shows; may be none
    std::string date;
};
/// The next round scale at which that width fits the paper.
Edit newSheet(NewSheet options);
/// The same frames under another name; match lines stay with the first.
Edit copySheet(ObjectId sheet);

/// BadInput unless both are between 50 and 5000 mm. Frames keep their rooms.
Edit setPaper(ObjectId sheet, std::array<double, 2> paper);
Edit setField(ObjectId sheet, std::string field, std::string text);
/// Millimetres between 0.01 and 5.
Edit setWeight(ObjectId sheet, double LineWeights::*layer, double millimetres);

/// In its usual size, where it lies over no other frame if there is such a place. A plan shows what `centre`
/// says; what is of an object takes `of`, or the only one or first there is; BadInput when there is none.
struct NewFrame {
    objects::FrameContent content;  ///< fresh; what it is of is filled in
    ObjectId of;
    geometry::Vec2 centre;
    double width = 0;  ///< of what the screen's plan shows: the scale of a plan
};
Edit addFrame(ObjectId sheet, NewFrame frame);
/// A frame of the table, or none of it any more.
Edit setTableOnSheet(ObjectId table, ObjectId sheet, bool on);
bool isOnSheet(const Sheet& sheet, ObjectId table);
Edit removeFrame(ObjectId sheet, std::size_t frame);
/// BadInput for a room that is smaller than 5 mm, not finite, or leaves the paper.
Edit setRoom(ObjectId sheet, std::size_t frame, paper::Room room);
/// All frames that leave the paper, brought onto it.
Edit bringFramesOnto(ObjectId sheet);
/// Over the others, or under them.
Edit setFrameOrder(ObjectId sheet, std::size_t frame, bool onTop);

/// Changes what a frame of kind F shows; scales below 1 and letters outside 0.5 to 50 mm are BadInput.
template <class F>
Edit changeFrame(ObjectId sheet, std::size_t frame, std::function<void(F&)> change);
/// What all of a frame's content becomes, checked.
Edit setContent(ObjectId sheet, std::size_t frame,
                std::function<Result<void>(const Document&, FrameContent&)> change);

/// Lays a plan frame along an alignment, all of it at first; none: it stays where it lay, by itself.
Edit layAlong(const Results& seen, ObjectId sheet, std::size_t frame, ObjectId alignment);

/// Moves what a plan frame shows by so many millimetres to the right and downwards, as a hand would; BadInput
/// for one that lies along an alignment.
Edit moveInFrame(ObjectId sheet, std::size_t frame, double right, double down);

/// A part of the plan, or a group, label style or object, that a plan frame shows. The first group that is
/// set makes the frame remember its own; till then it shows what the screen does.
Edit setFramePart(ObjectId sheet, std::size_t frame, PlanPart part, bool shown);
Edit setFrameShows(ObjectId sheet, std::size_t frame, ObjectId what, bool shown);
/// It shows what the screen does again.
Edit showAsOnScreen(ObjectId sheet, std::size_t frame);
/// Whether a plan frame shows an object.
bool shownInFrame(const Document& document, const ShownInFrame& shown, const Object& object);

/// Plans along an alignment on as many sheets as it takes, the profile below each.
struct SheetsAlong {
    ObjectId alignment;
    ObjectId profile;  ///< of the alignment; may be none
    double scale = 500;
    std::array<double, 2> paper = {420, 297};
    std::string date;
};
/// BadInput when no 500 sheets hold it.
Edit sheetsAlong(Results seen, const SheetsAlong& options);

/// A title block or a picture; BadInput for what is no SVG, PNG or JPEG, or too large.
Result<Artwork> artworkFrom(std::string bytes);
/// Under this name, or in place of the one that has it already.
Edit putArtwork(std::string name, Artwork artwork);

template <class F>
Edit changeFrame(ObjectId sheet, std::size_t frame, std::function<void(F&)> change) {
    return setContent(sheet, frame,
                      [change = std::move(change)](const Document&, FrameContent& content) -> Result<void> {
                          auto* of = std::get_if<F>(&content);
                          if (of == nullptr) return badInput("the frame is another one by now");
                          change(*of);
                          return {};
                      });
}

}  // namespace erdwerk::operations
