#pragma once
// Where the texts of the plan's last picture stand, and which of them found no room.

#include <QString>
#include <map>
#include <set>
#include <vector>

#include "core/annotate/placer.h"
#include "core/base/id.h"

namespace erdwerk::app {

struct TextsShown {
    /// Boxes of what labels and dimensions say, on the ground, y to the north.
    struct OfObject {
        std::vector<annotate::TextBox> boxes;
        bool tag = false;
    };
    std::map<ObjectId, OfObject> shown;
    std::set<ObjectId> leftOut;           ///< labels and dimensions in the picture that found no room
    std::map<ObjectId, QString> missing;  ///< signs that the font of labels lacks, of those that need them
    std::size_t texts = 0;                ///< of all sorts in the picture
    std::size_t without = 0;              ///< of all sorts that found no room
};

}  // namespace erdwerk::app
