#pragma once
// The registry of operations: help, argument checks, JSON output and the reference page are made from it.

#include <CLI/CLI.hpp>
#include <functional>
#include <nlohmann/json.hpp>
#include <optional>
#include <string>
#include <vector>

#include "core/base/result.h"
#include "core/format/import.h"
#include "core/survey/cloud.h"

namespace erdwerk::cli {

/// What an operation gives back.
struct Outcome {
    nlohmann::ordered_json json;
    std::string text;          ///< for people; empty: made from the JSON
    bool dataIsWrong = false;  ///< exit 1
};

/// All options of all commands; each command binds those it has.
struct Arguments {
    std::vector<std::string> inputs;
    std::vector<std::string> points;
    std::vector<std::string> lines;
    std::string columns;
    std::string sortBy;
    bool falling = false;
    std::string tableUnit;  ///< empty: the project's
    std::string boundary;
    std::string output;
    std::string from;
    std::string to;
    std::string at;
    std::string along;
    std::string parcel;
    std::string wording;  ///< a template of descriptions
    std::string commence;
    std::string names;
    std::vector<std::string> areaUnits;
    bool asParcels = false;
    std::string compare;
    std::string calledUnit;     ///< empty: what the text says
    double azimuthOfNorth = 0;  ///< degrees
    std::string unit = "m";
    std::vector<std::string> sheets;
    std::vector<std::string> clouds;
    std::vector<std::string> rasters;
    std::vector<std::string> openings;
    std::vector<std::string> surfaces;
    std::vector<std::string> rows;
    std::vector<std::string> crossing;
    std::vector<std::string> texts;
    std::vector<std::string> leaders;
    std::string field;
    std::string prefix;
    std::string otherwise;
    std::string side;
    std::string corners = "mitre";
    std::string gradeA;
    std::string gradeB;
    std::string slopeAlong = "perpendicular";
    std::string edge;
    std::string cut;
    std::string fill;
    std::string toSurface;
    std::optional<double> toHeight;
    std::optional<double> rise;
    std::optional<double> distance;
    std::vector<std::string> berms;
    std::string daylight;
    std::string finished;
    bool rules = false;
    bool balance = false;
    double surplus = 0;
    double swell = 1;
    double shrink = 1;
    double step = 0.1;
    double amount = 0;
    double thin = 0;
    bool cornersOnly = false;
    bool chained = false;
    std::vector<int> classes;
    std::string onCrossing = "first";
    std::string start;
    bool reverse = false;
    double radius = 0;
    std::vector<std::string> equations;
    std::string alignment;
    std::string offsets;
    std::string pvis;
    std::vector<std::string> grounds;
    std::string criteria;
    std::vector<std::string> speeds;
    std::vector<std::string> across;
    std::string source;
    std::string what;
    double tolerance = 0;
    double slopeChange = 0;  ///< degrees
    double minAngle = 25;    ///< degrees
    double minLength = 5;
    double deviation = 0;
    double cell = 0;
    bool doublePrecision = false;
    double maxEdge = 0;
    double interval = 0;
    int index = 5;
    int begin = 1;
    bool smooth = false;
    bool skipBadRows = false;
    bool withJournal = false;
    Context context;  ///< progress on a terminal, Ctrl+C
};

struct Operation {
    std::string name;
    std::string summary;
    std::string example;  ///< runs on the demo data
    std::function<void(CLI::App&, Arguments&)> declare;
    std::function<Result<Outcome>(const Arguments&)> run;
};

const std::vector<Operation>& operations();

std::vector<Operation> surfaceOperations();
std::vector<Operation> cloudOperations();
std::vector<Operation> denseOperations();
std::vector<Operation> extractOperations();

// Options that several commands have.
void surfaceArgument(CLI::App& app, Arguments& arguments);
void denseArgument(CLI::App& app, Arguments& arguments);
void classesOption(CLI::App& app, Arguments& arguments);

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
