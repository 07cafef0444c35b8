#pragma once
// The registry of operations: help, argument checks, JSON output and the reference page are made from it.

#include <functional>
#include <nlohmann/json.hpp>
#include <numbers>
#include <optional>
#include <string>
#include <vector>

#include "cli/options.h"
#include "core/base/result.h"
#include "core/format/import.h"
#include "core/survey/cloud.h"
#include "core/terrain/build.h"

namespace erdwerk::cli {

/// What an operation gives back.
struct Outcome {
    nlohmann::ordered_json json;
    std::string text;          ///< for people; empty: made from the JSON
    bool dataIsWrong = false;  ///< exit 1
};

constexpr double degree = std::numbers::pi / 180;

struct Operation {
    std::string name;
    std::string summary;
    std::string example;  ///< runs on the demo data
    std::function<void(Options&)> declare;
    std::function<Result<Outcome>(const Arguments&)> run;
};

const std::vector<Operation>& operations();

std::vector<Operation> surfaceOperations();
std::vector<Operation> cloudOperations();
std::vector<Operation> denseOperations();
std::vector<Operation> extractOperations();

// Options that several commands have.
void linesArgument(Options& options);
/// A file that has to be named; `what` says what is written into it.
void outputOption(Options& options, const std::string& what);
constexpr const char* linesToWrite = "3D lines to write: .gpkg or .geojson";
void surfaceArgument(Options& options);
void denseArgument(Options& options);
void classesOption(Options& options);
/// How a CSV of points is read: its columns, and what happens to rows that cannot be read.
void csvOptions(Options& options);
format::ImportOptions csvOptionsOf(const Arguments& arguments);

std::vector<Operation> lineOperations();
std::vector<Operation> derivedLineOperations();
std::vector<Operation> earthworkOperations();
std::vector<Operation> routeOperations();
std::vector<Operation> parcelOperations();
std::vector<Operation> descriptionOperations();
std::vector<Operation> projectOperations();

/// Lines of one or more vector files, in order, with their rules as text; says what is left out.
Result<std::vector<format::VectorLine>> readRuledLines(const std::vector<std::string>& files);
/// The same with the heights that their rules give, fixed; says of each point whose rule gives none.
Result<std::vector<format::VectorLine>> readLines(const std::vector<std::string>& files);
/// The only line of a file; BadInput when there are none or more.
Result<format::VectorLine> readOneLine(const std::string& file, const std::string& what);
/// The only line of a file, or FILE:NAME.
Result<format::VectorLine> readNamedLine(const std::string& spec, const std::string& what);
/// A valid boundary from the only closed line of a file; corners keep their heights where they have them.
Result<terrain::Boundary> readBoundary(const std::string& file);
/// Stretches with heights of the lines of files, as breaklines; says which stretches have none.
Result<std::vector<terrain::Breakline>> readBreaklines(const std::vector<std::string>& files);
/// .xml or .ply by the ending.
Result<void> writeSurface(const std::string& path, const terrain::Tin& tin,
                          LengthUnit unit = LengthUnit::Metre);
/// `--classes` and nothing else.
survey::CloudFilter classFilter(const Arguments& arguments);
/// All closed lines of a file.
Result<std::vector<terrain::Boundary>> readRings(const std::string& file);
linework::ResolvedLine resolved(const linework::Line3D& line);

void say(const std::string& message);  ///< to stderr
/// The application's binary, which stands beside this one; NotFound where it does not.
Result<std::string> applicationBeside();
/// A text as .txt, or as .odt or .pdf by the application.
Result<void> writeText(const std::string& path, const std::string& text);

/// Says of each project among the inputs what is unsaved beside it.
void sayUnsaved(const Arguments& arguments);

}  // namespace erdwerk::cli
