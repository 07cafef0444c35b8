#pragma once

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

}  // namespace erdwerk::operations
