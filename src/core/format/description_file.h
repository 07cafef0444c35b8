#pragma once
// What goes with a legal description: its wording as JSON, the names of its sides as CSV.

#include <string>
#include <vector>

#include "core/base/result.h"
#include "core/parcel/description.h"

namespace erdwerk::format {

/// The keys of parcel::sentenceKeys(), and "name"; a sentence that is left out is that of `otherwise`. An
/// unknown key or field, or a value that is no text, is BadInput with the file and what it is.
Result<parcel::DescriptionTemplate> readWording(const std::string& path,
                                                const parcel::DescriptionTemplate& otherwise);
Result<parcel::DescriptionTemplate> parseWording(const std::string& text, const std::string& file,
                                                 const parcel::DescriptionTemplate& otherwise);
Result<void> writeWording(const std::string& path, const parcel::DescriptionTemplate& wording);

/// `course,along,to`: the course from 1, what it runs along, the thing it runs to. One for each of `courses`;
/// a course that is not there, or comes twice, is BadInput with its line.
Result<std::vector<parcel::SideNames>> readSideNames(const std::string& path, std::size_t courses);
Result<std::vector<parcel::SideNames>> parseSideNames(std::string_view bytes, const std::string& file,
                                                      std::size_t courses);

}  // namespace erdwerk::format
