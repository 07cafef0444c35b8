#pragma once
// Descriptions: what parcels are called, the wording, passages changed by hand, texts that are read back.

#include "core/derive/model.h"
#include "core/derive/parcel_result.h"
#include "core/document/transaction.h"
#include "core/operations/edit.h"

namespace erdwerk::operations {

using document::Edit;
using document::Edited;

/// How far the called courses may be from closing before it is a finding: 0.05 m in project units.
double closingLimit(LengthUnit unit);

/// Whose boundary a course (from 0) runs along, or the thing it runs to; empty takes the name away.
Edit nameAdjoiner(ObjectId parcel, std::size_t course, const std::string& name);
Edit nameThing(ObjectId parcel, std::size_t course, const std::string& name);

/// A passage as somebody typed it; as it writes itself, or empty: by hand no more.
Edit typePassage(ObjectId parcel, const derive::ParcelPassage& passage, const std::string& text);
/// A wording of the project, from a shipped one or from a file.
Edit addWording(parcel::DescriptionTemplate wording);
/// A wording of the project that a parcel is written with from now on.
Edit ownWording(ObjectId parcel, parcel::DescriptionTemplate wording);
/// One sentence of it; BadInput when it is not valid.
Edit changeSentence(ObjectId wording, std::string_view key, const std::string& sentence);

/// A text to read back, placed at the parcel's point of beginning where it is compared with one.
Edit readBack(const derive::Derived& derived, const std::string& name, const std::string& text,
              ObjectId parcel, geometry::Vec2 at);

/// Another text; one that cannot be read is kept too, and says so.
Edit changeReading(ObjectId reading, const std::string& text);
/// "E, N" of the point of beginning; an azimuth, or a bearing, of the called north.
Edit placeReading(ObjectId reading, const std::string& typed);
Edit turnReading(ObjectId reading, const std::string& typed);
/// "S 45°30'20" E, 35.20", "curve to the left, radius 50.00, 23°15'00", arc 20.29": what is called.
std::string courseWords(const parcel::CalledCourse& course, const parcel::DrawnCourse& drawn);
/// Where a course (from 0) lies in the plan; nothing for one that could not be drawn.
std::optional<geometry::Vec2> middleOfCourse(const derive::ReadingResult& reading, std::size_t course);
/// "course 3, distance: called 35.02, it is 35.20 ("a distance of 35.02 metres")".
std::string differenceWords(const derive::Derived& derived, ObjectId reading,
                            const parcel::TextDifference& difference);

}  // namespace erdwerk::operations
