#pragma once
// A plane with what sheets show.

#include "core/operations/records.h"
#include "core/operations/sheets.h"
#include "support/plane_site.h"

namespace erdwerk::test {

using namespace operations;

/// With a parcel, an alignment (70 long, a right angle at 30), a profile and an empty A3 sheet.
struct PaperSite : PlaneSite {
    ObjectId parcel;
    ObjectId alignment;
    ObjectId profile;
    ObjectId sheet;
    PaperSite() {
        EXPECT_TRUE(apply(makeParcel(plot)));
        parcel = last<Parcel>();
        EXPECT_TRUE(apply(makeAlignment(lane)));
        alignment = last<Alignment>();
        EXPECT_TRUE(apply(newProfile(alignment, ground)));
        profile = last<Profile>();
        document = document.added("S", Sheet{}, &sheet);
    }
    [[nodiscard]] const Sheet& now() const { return *document.get<Sheet>(sheet); }
    [[nodiscard]] const Frame& frame(std::size_t i) const { return now().frames.at(i); }
    template <class F>
    [[nodiscard]] const F& content(std::size_t i) const {
        return std::get<F>(frame(i).content);
    }
    void addPlan() { EXPECT_TRUE(apply(addFrame(sheet, {objects::PlanFrame{}, {}, {50, 50}, 90}))); }
};

inline std::vector<std::string> kindsOf(const Sheet& sheet) {
    std::vector<std::string> out;
    for (const Frame& frame : sheet.frames) out.emplace_back(frameKind(frame.content).id);
    return out;
}

}  // namespace erdwerk::test
