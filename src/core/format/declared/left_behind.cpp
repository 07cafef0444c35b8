#include "core/format/declared/left_behind.h"

#include <algorithm>

namespace erdwerk::format {

std::vector<std::string> leftBehind(const document::Document& document,
                                    std::initializer_list<std::string_view> kinds) {
    std::vector<std::string> left;
    const auto& objects = document.objects();
    for (const auto kind : kinds) {
        const auto n = std::count_if(objects.begin(), objects.end(), [&](const auto& entry) {
            return kindName(entry.second->payload) == kind;
        });
        if (n > 0)
            left.push_back(std::to_string(n) + " " + std::string(kind) +
                           (n > 1 && kind != "points" ? "s" : ""));
    }
    return left;
}

}  // namespace erdwerk::format
