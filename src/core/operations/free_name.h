#pragma once

#include <algorithm>
#include <string>
#include <string_view>

#include "core/document/document.h"

namespace erdwerk::operations {

/// The name itself when no object of the kind has it, else with the first number behind it that is free:
/// "Plot 2".
template <class T>
std::string freeName(const document::Document& document, const std::string& name) {
    std::string out = name;
    for (int i = 2; document.byName<T>(out); ++i) out = name + " " + std::to_string(i);
    return out;
}

/// Of a copy or a part: "Kerb (2)" of "Kerb", "Kerb (4)" of "Kerb (2)" where "Kerb (3)" is taken.
inline std::string copyName(const document::Document& document, const std::string& name) {
    std::string stem = name;
    if (const auto open = name.rfind(" ("); open != std::string::npos && open > 0 && name.back() == ')') {
        const auto digits = std::string_view(name).substr(open + 2, name.size() - open - 3);
        if (!digits.empty() && digits.find_first_not_of("0123456789") == std::string_view::npos)
            stem = name.substr(0, open);
    }
    const auto isTaken = [&](const std::string& one) {
        return std::any_of(document.objects().begin(), document.objects().end(),
                           [&](const auto& entry) { return entry.second->name == one; });
    };
    int number = 2;
    const auto numbered = [&] { return stem + " (" + std::to_string(number) + ")"; };
    while (isTaken(numbered())) ++number;
    return numbered();
}

}  // namespace erdwerk::operations
