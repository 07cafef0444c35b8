#pragma once
// NAME.erdwerk: an SQLite database that is a valid GeoPackage (OGC 12-128r15, version 1.3).

#include <string>

#include "core/base/result.h"
#include "core/document/model.h"

namespace erdwerk::format {

/// Version of our own tables. A file with a greater number is refused.
inline constexpr int projectVersion = 1;

struct OpenedProject {
    document::Document document;
    std::string stamp;  ///< identifies the save; the journal continues it
};

/// Points, lines, surfaces' triangles, alignments and parcels as ordinary layers with heights, for other
/// software; the exact definitions in tables of our own, as the truth. Written beside the file and renamed
/// over it, so a process that is killed leaves the old file whole. Returns the new stamp.
Result<std::string> saveProject(const std::string& path, const document::Derived& derived);

/// Everything or an Error: not a project, damaged (named object), or made by a newer version. The file is not
/// changed.
Result<OpenedProject> openProject(const std::string& path);

/// The ordinary layers alone, in a GeoPackage.
Result<void> exportGeoPackage(const std::string& path, const document::Derived& derived);

}  // namespace erdwerk::format
