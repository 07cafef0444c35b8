#include "core/format/marking_file.h"

#include "core/format/json_file.h"
#include "core/format/objects/marking.h"

namespace erdwerk::format {

Result<std::pair<std::string, route::MarkingSettings>> readMarking(const std::string& path) {
    return readNamed(path, "Marking", markingFromJson);
}

Result<void> writeMarking(const std::string& path, const std::string& name,
                          const route::MarkingSettings& marking) {
    return writeNamed(path, name, markingJson(marking));
}

}  // namespace erdwerk::format
