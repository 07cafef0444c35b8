#include "core/format/offset_set_file.h"

#include "core/format/json_file.h"
#include "core/format/objects/offset_set.h"

namespace erdwerk::format {

Result<std::pair<std::string, objects::OffsetSet>> readOffsetSet(const std::string& path) {
    return readNamed(path, "Rows", offsetSetFromJson);
}

Result<void> writeOffsetSet(const std::string& path, const std::string& name, const objects::OffsetSet& set) {
    return writeNamed(path, name, offsetSetJson(set));
}

}  // namespace erdwerk::format
