#pragma once
// NAME.erdwerk: an SQLite database that is a valid GeoPackage (OGC 12-128r15, version 1.3).

#include <string>

#include "core/base/result.h"
#include "core/derive/model.h"
#include "core/format/journal.h"

namespace erdwerk::format {

/// Version of our own tables. A file with a greater number is refused.
inline constexpr int projectVersion = 9;

struct OpenedProject {
    document::Document document;
    SaveMark mark;
    // With its journal only:
    std::size_t unsaved = 0;     ///< changes beside it that are not saved
    std::string lastUnsaved;     ///< what the last of them was
    std::string journalProblem;  ///< why a part of the journal cannot be read; or empty
};

/// Points, lines, surfaces' triangles, alignments and parcels as ordinary layers with heights, for other
/// software; the exact definitions in tables of our own, as the truth. Written beside the file and renamed
/// over it, so a process that is killed leaves the old file whole. Objects without a result in `derived`
/// stand in our own tables only. The file says which changes of which journal it holds (`mark`: follows,
/// heldChanges). Returns the new stamp.
Result<std::string> saveProject(const std::string& path, const derive::Derived& derived,
                                const SaveMark& mark = {});

/// Everything or an Error: not a project, damaged (named object), or made by a newer version. The file is not
/// changed.
Result<OpenedProject> openProject(const std::string& path);
/// The same, and what is unsaved beside it: counted, and taken along when `take`. Nothing is changed.
Result<OpenedProject> openProjectWithJournal(const std::string& path, bool take);

/// The ordinary layers alone, in a GeoPackage.
Result<void> exportGeoPackage(const std::string& path, const derive::Derived& derived);

}  // namespace erdwerk::format
