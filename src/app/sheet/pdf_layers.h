#pragma once
// Layers of a PDF that a reader can put on and off (optional content, ISO 32000-1, 8.11).

#include <string>
#include <vector>

#include "core/base/result.h"

namespace erdwerk::app {

/// A page whose layers stand as pages behind each other, from below; an empty name is in no layer. A name
/// may come again: it is the same layer.
struct LayeredPage {
    std::vector<std::string> layers;
    double width = 0;  ///< of the paper in millimetres, from its upper left corner; 0: as the pages are
    double height = 0;
};

/// Lays the pages of a PDF on each other, each layer as one form; pages on which nothing is drawn go. Every
/// page of it belongs to one of `pages`, in their order. Io when it cannot be read.
Result<std::string> layPages(const std::string& pdf, const std::vector<LayeredPage>& pages);

}  // namespace erdwerk::app
