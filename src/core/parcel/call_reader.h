#pragma once
// One call of a description as a course.

#include "core/parcel/call_split.h"
#include "core/parcel/read_back.h"

namespace erdwerk::parcel {

struct CallReading {
    CalledCourse course;
    std::vector<TextRange> unread;
    bool nothing = true;     ///< no figure and no direction stand in it
    bool opensList = false;  ///< "the following five courses:"
};

struct CallContext {
    CalledUnit unit = CalledUnit::Metre;        ///< that lengths are given in
    bool azimuths = false;                      ///< a bare angle is an azimuth: no bearing in the text
    const CalledCourse* curveBefore = nullptr;  ///< that "said curve" goes on with
};

/// A figure that belongs to the call and cannot be read is unread; so are the words of a call that lacks what
/// draws it.
CallReading readCall(Words words, const CallSpan& span, const CallContext& context);

}  // namespace erdwerk::parcel
