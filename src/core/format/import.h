#pragma once
// Reading any of the formats into a document, by the file's ending.

#include <string>
#include <vector>

#include "core/derive/model.h"
#include "core/format/landxml.h"
#include "core/format/survey_csv.h"
#include "core/format/vector_file.h"

namespace erdwerk::format {

/// What came in, and what was passed over with the reason.
struct Imported {
    document::Document document;
    std::size_t points = 0;
    std::size_t lines = 0;
    std::vector<SkippedRow> skipped;
    std::vector<std::string> left;
    std::vector<ObjectId> flat;      ///< lines that were at 0 throughout, and came in without heights
    std::size_t textsAtNothing = 0;  ///< texts that were at 0, and came in without heights
    std::size_t chordedArcs = 0;     ///< arcs that are drawn as chords
};

/// Adds the points to a set named after the file.
Imported addPoints(const document::Document& document, const std::string& path, CsvPoints points);
/// Adds lines (one object each, in a group named after the layer when there is more than one layer) and
/// points. Lines at height 0 throughout come in without heights, and so do points with a text at 0, or all of
/// them when all are at 0, unless `keepZero`. A layer of nothing but triangles with heights becomes a
/// surface. Height rules speak of the lines of the file, then of what is in the document; what they name and
/// is not there is among `left`, and its height is left out. BadInput names file, feature and entry of a rule
/// that cannot be read.
Result<Imported> addVectorContent(const document::Document& document, const std::string& path,
                                  const VectorContent& content, bool keepZero = false);
/// Adds points, surfaces, alignments with profiles and parcels. Lengths are converted to the document's unit.
Result<Imported> addLandXml(const document::Document& document, const std::string& path,
                            const LandXml& content);

/// One surface, named after the file, in the unit of the document.
Result<Imported> addSurfaceOf(const document::Document& document, const std::string& path, terrain::Tin tin);
/// A cloud that stays in its file.
Result<Imported> addCloud(const document::Document& document, const std::string& path,
                          const Context& context = {});
/// A raster of heights, or a picture as backdrop; both stay in their file.
Result<Imported> addRaster(const document::Document& document, const std::string& path,
                           const Context& context = {});

/// Layout for a CSV on the command line or with a header: columns by letters, or by the header's names.
/// BadInput when easting and northing are not among them.
Result<CsvLayout> layoutFor(std::string_view bytes, const std::string& columnLetters,
                            const std::string& file);

struct ImportOptions {
    std::string columns;       ///< letters for CSV without names; empty: by the header
    bool skipBadRows = false;  ///< else the first bad row is the Error
    bool withJournal = false;  ///< projects with what is unsaved beside them
    bool keepZero = false;     ///< vector files: heights of 0 throughout are meant
};

/// Any file whose format is known by its ending (see formats.h), else whatever GDAL reads as vectors.
Result<Imported> importFile(const document::Document& document, const std::string& path,
                            const ImportOptions& options, const Context& context = {});
Result<CsvPoints> readPointFile(const std::string& path, const ImportOptions& options, LengthUnit unit);

/// How a file that somebody hands over is read, by its ending. Points go through a preview of their columns;
/// Lines: all that importFile reads by itself.
enum class FileSort { Project, Points, Cloud, Raster, Lines };
FileSort sortOf(const std::string& path);

/// One surface: a file of a format that holds some, or PROJECT.erdwerk:NAME (the name may be left out where
/// there is only one).
Result<std::shared_ptr<const terrain::TinLocator>> openSurface(const std::string& spec,
                                                               bool withJournal = false,
                                                               LengthUnit* unit = nullptr);

/// "survey" from "/data/survey.csv".
std::string stemOf(const std::string& path);

}  // namespace erdwerk::format
