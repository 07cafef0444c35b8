#pragma once
// A parcel.

#include <string>
#include <vector>

#include "core/objects/kind.h"

namespace erdwerk::objects {

/// A part of its description that somebody changed by hand.
struct Passage {
    enum class Of { Opening, Beginning, ListOpening, Course, Area };
    Of of = Of::Course;
    std::size_t side = 0;  ///< of the line, for a course
    std::string text;      ///< as it was typed
    std::string instead;   ///< what wrote itself then; another one now is a finding
    friend bool operator==(const Passage&, const Passage&) = default;
};
/// "opening", "beginning", "list-opening", "course", "area": as stored in files.
std::string_view passageName(Passage::Of of);

/// Follows the plan of a line.
struct Parcel {
    /// A name at a side or a corner of the line, in the line's own direction.
    struct Named {
        std::size_t part = 0;
        std::string name;
        friend bool operator==(const Named&, const Named&) = default;
    };

    ObjectId line;
    bool reversed = false;
    std::size_t begin = 0;                ///< corner of the (reversed) path that is the point of beginning
    std::string beginning;                ///< its name
    ObjectId wording = {};                ///< none: plain
    ObjectId tie = {};                    ///< the line from the point of commencement; may be none
    std::string commencement = {};        ///< name of that point
    std::vector<std::string> areas = {};  ///< "m2", "ha", "ft2", "acre"; none: as usual for the unit
    std::vector<Named> adjoiners = {};    ///< by side: whose boundary it runs along
    std::vector<Named> things = {};       ///< by corner: what stands there
    std::vector<Passage> passages = {};
    friend bool operator==(const Parcel&, const Parcel&) = default;

    /// The side of the line that a course is, and the corner that it leads to; `sides` of the line.
    [[nodiscard]] std::size_t sideOf(std::size_t course, std::size_t sides, bool closed) const;
    [[nodiscard]] std::size_t cornerAfter(std::size_t course, std::size_t sides, bool closed) const;
};

template <>
struct Kind<Parcel> {
    static constexpr std::string_view name = "parcel";
    static constexpr std::optional<Role> sourceRole = std::nullopt;
    static void references(const Parcel& object, const Visit& visit);
    static std::optional<Parcel> without(Parcel object, ObjectId gone);
    static std::optional<Parcel> carried(Parcel object, const Carry& carry, std::vector<std::string>* lost);
};

}  // namespace erdwerk::objects
