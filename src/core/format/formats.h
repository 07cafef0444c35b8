#pragma once
// The open formats: each is declared once, in a file of its own in declared/, and listed once, in
// formats.cpp. Importing, exporting, the dialogs, what is dropped on the window, the command line and the
// messages ask here.

#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "core/format/export.h"
#include "core/format/import.h"
#include "core/terrain/tin.h"

namespace erdwerk::terrain {
class TinLocator;
}

namespace erdwerk::format {

struct ReadSurface {
    terrain::Tin tin;
    std::optional<LengthUnit> unit;  ///< nothing where the file does not say
};

/// A surface to be written, with what some formats can say besides.
struct SurfaceToWrite {
    std::string name;
    const terrain::Tin& tin;
    LengthUnit unit = LengthUnit::Metre;
    double cell = 0;  ///< of a raster; 0: as wide as the vertices stand apart on average, rounded
    const derive::Derived* derived = nullptr;      ///< for its breaklines and boundaries; may be null
    const terrain::TinLocator* locator = nullptr;  ///< of this tin, where there is one
};

struct Format {
    std::string_view name;                  ///< as a dialog says it: "LandXML 1.2"
    std::vector<std::string_view> endings;  ///< with their dot; the first is the one that is written
    FileSort sort = FileSort::Lines;        ///< how a file that is handed over is taken in
    std::vector<FileSort> offered = {};     ///< dialogs for other sorts that offer it as well
    /// Adds what a file holds to a document.
    Result<Imported> (*read)(const document::Document&, const std::string& path, const ImportOptions&,
                             const Context&) = nullptr;
    /// Writes a project; returns what the format cannot hold.
    Result<std::vector<std::string>> (*write)(const std::string& path, const derive::Derived&,
                                              Figures) = nullptr;
    /// Figures can be written as they are shown, besides with all their digits.
    bool hasFigures = false;
    Result<ReadSurface> (*readSurface)(const std::string& path) = nullptr;
    Result<void> (*writeSurface)(const std::string& path, const SurfaceToWrite&) = nullptr;
};

/// In the order in which dialogs offer them. Where two have an ending in common the first one has it.
const std::vector<Format>& formats();
/// By the ending; null for one that none has.
const Format* formatOf(std::string_view path);
/// The endings of the formats for which this holds, as words: ".xml, .ply or .obj".
std::string endingsThat(bool (*holds)(const Format&));

// The declarations.
Format project();
Format csvOfPoints();
Format landXml();
Format geoPackage();
Format geoJson();
Format otherVectors();
Format plyFile();
Format objFile();
Format binaryGltf();
Format lasFile();
Format textXyz();
Format rasters();

}  // namespace erdwerk::format
