#include "core/parcel/description_wordings.h"

#include <array>
#include <cmath>

namespace erdwerk::parcel {

std::string fixed(double value, int decimals) {
    char text[64];
    std::snprintf(text, sizeof text, "%.*f", decimals, value);
    return text;
}

std::string side(const Sayings& s) {
    return s.right ? "right" : "left";
}

namespace {

/// Whole seconds of an angle in degrees as parts.
struct Parts {
    long degrees, minutes, seconds;
    explicit Parts(double angle) {
        const long all = std::lround(angle * 3600);
        degrees = all / 3600;
        minutes = all / 60 % 60;
        seconds = all % 60;
    }
};

std::string two(long n) {
    return (n < 10 ? "0" : "") + std::to_string(n);
}

std::string inWords(long n) {
    static const std::array small{"zero",    "one",     "two",       "three",    "four",
                                  "five",    "six",     "seven",     "eight",    "nine",
                                  "ten",     "eleven",  "twelve",    "thirteen", "fourteen",
                                  "fifteen", "sixteen", "seventeen", "eighteen", "nineteen"};
    static const std::array tens{"",      "",      "twenty",  "thirty", "forty",
                                 "fifty", "sixty", "seventy", "eighty", "ninety"};
    if (n >= 1000) return inWords(n / 1000) + " thousand" + (n % 1000 ? " " + inWords(n % 1000) : "");
    if (n >= 100) return inWords(n / 100) + " hundred" + (n % 100 ? " " + inWords(n % 100) : "");
    if (n >= 20)
        return std::string(tens[static_cast<std::size_t>(n / 10)]) + (n % 10 ? "-" + inWords(n % 10) : "");
    return small[static_cast<std::size_t>(n)];
}

std::string marked(double angle, const std::string& d, const std::string& m, const std::string& s,
                   bool zeros) {
    const Parts p(angle);
    return std::to_string(p.degrees) + d + (zeros ? two(p.minutes) : std::to_string(p.minutes)) + m +
           (zeros ? two(p.seconds) : std::to_string(p.seconds)) + s;
}

std::string quadrant(double azimuth, const std::function<std::string(double)>& angle,
                     const std::string& north, const std::string& south, const std::string& east,
                     const std::string& west, const std::string& space) {
    double a = std::fmod(azimuth + 360, 360);
    const bool s = a > 90 && a < 270;
    const bool w = a > 180;
    a = s ? std::abs(180 - a) : (w ? 360 - a : a);
    return (s ? south : north) + space + angle(a) + space + (w ? west : east);
}

std::string signsOf(double a) {
    return marked(a, "°", "'", "\"", true);
}
std::string wordsOfAngle(double a) {
    return marked(a, " degrees ", " minutes ", " seconds", false);
}
std::string spelledAngle(double a) {
    const Parts p(a);
    return inWords(p.degrees) + " degrees, " + inWords(p.minutes) + " minutes and " + inWords(p.seconds) +
           " seconds";
}
std::string gonOf(double a) {
    return fixed(a / 0.9, 4) + " gon";
}
std::string chainsOf(double v) {
    const long links = std::lround(v * 1000);
    return std::to_string(links / 1000) + " chains " + fixed(static_cast<double>(links % 1000) / 10, 1) +
           " links";
}
std::string spelledFeet(double v) {
    const long hundredths = std::lround(v * 100);
    return inWords(hundredths / 100) + " and " + two(hundredths % 100) + "/100 (" + fixed(v, 2) + ") feet";
}

using Writer = std::function<std::string(double)>;

Writer lengthIn(const std::string& behind, int decimals = 2) {
    return [=](double v) { return fixed(v, decimals) + behind; };
}
Writer inFull(const Writer& angle) {
    return [=](double a) { return quadrant(a, angle, "North", "South", "East", "West", " "); };
}
Writer byLetters(const Writer& angle, const std::string& space = " ") {
    return [=](double a) { return quadrant(a, angle, "N", "S", "E", "W", space); };
}
Writer withWord(const std::string& before, const Writer& angle) {
    return [=](double a) { return before + angle(a); };
}

std::string tangency(const Sayings& s) {
    return s.tangent ? "tangent" : "non-tangent";
}
std::string rose(double azimuth) {
    static const std::array names{"north", "northeast", "east", "southeast",
                                  "south", "southwest", "west", "northwest"};
    return names[static_cast<std::size_t>(std::lround(std::fmod(azimuth + 360, 360) / 45)) % 8];
}

std::string fullCurve(const Sayings& s) {
    return "along a " + tangency(s) + " curve to the " + side(s) + ", having a radius of " + s.radius +
           " and a central angle of " + s.delta + ", the chord of which bears " + s.direction +
           " and measures " + s.length + ", an arc length of " + s.arc;
}

std::string foundCorner(std::size_t i) {
    static const std::array things{
        " to a 5/8 inch iron rod", " to the northwest corner of Lot 12",
        " to a stone, from which an oak 14 inches in diameter bears North 20° East, 12 feet",
        " to a brass cap in a 20.00 foot wide lane", ""};
    return things[i % things.size()];
}

Wording plainCourses(const std::string&) {
    return {
        "Plot Q-4: a parcel of land, described as follows.\n\nBeginning at the stone (E 48010.12 m, "
        "N "
        "91020.33 m), the point of beginning",
        ", to the point of beginning.\n\nContaining AREA, more or less.\n",
        [](const Sayings& s, std::size_t, std::size_t) {
            return ";\nthence " + (s.curve ? fullCurve(s) : s.direction + ", a distance of " + s.length);
        }};
}

Wording deedOfASection(const std::string&) {
    return {
        "COMMENCING at the southeast corner of Section 14; thence North 10°00'00\" West, along the "
        "east line of said section, 250.00 feet to the TRUE POINT OF BEGINNING",
        " to the TRUE POINT OF BEGINNING. Containing AREA, more or less.",
        [](const Sayings& s, std::size_t i, std::size_t) {
            if (!s.curve)
                return "; thence " + s.direction + ", a distance of " + s.length + "," + foundCorner(i);
            return "; thence along the arc of a curve to the " + side(s) + ", " +
                   (s.tangent ? "tangent to the last course" : "not tangent to the last course") +
                   ", a distance of " + s.arc + ", said curve having a radius of " + s.radius +
                   ", a central angle of " + s.delta + " and a chord bearing " + s.direction + " for " +
                   s.length + "," + foundCorner(i);
        }};
}

Wording bracketedList(const std::string& list) {
    return {"Beginning at a point on the northerly line of Starling Lane, being Lot 7 of Block 3; " + list,
            " to the Point of Beginning, containing AREA.", [](const Sayings& s, std::size_t i, std::size_t) {
                const std::string mark = (i > 0 ? "; (" : "(") + std::to_string(i + 1) + ") ";
                return mark + (s.curve ? fullCurve(s) : s.direction + ", " + s.length) + foundCorner(i);
            }};
}

Wording numberedLines(const std::string&) {
    return {"The plot is bounded as follows, beginning at a stone:\n", "\n\nArea: AREA\n",
            [](const Sayings& s, std::size_t i, std::size_t) {
                return std::to_string(i + 1) + ". " +
                       (s.curve ? "Along a " + tangency(s) + " curve to the " + side(s) + " of radius " +
                                      s.radius + ", delta " + s.delta + ", arc " + s.arc + ", chord " +
                                      s.direction + ", " + s.length
                                : s.direction + " for " + s.length) +
                       "\n";
            }};
}

Wording compact(const std::string&) {
    return {"POB at iron pin. ", " to POB. AREA±.", [](const Sayings& s, std::size_t, std::size_t) {
                return "Thence " +
                       (s.curve ? "on a " + tangency(s) + " curve " + side(s) + ", R=" + s.radius + ", Δ=" +
                                      s.delta + ", L=" + s.arc + ", CB=" + s.direction + ", C=" + s.length
                                : s.direction + " " + s.length) +
                       ". ";
            }};
}

Wording azimuths(const std::string&) {
    return {
        "Commencing at trig pillar 6, thence on an azimuth of 12°00'00\" for 88.00 metres to the "
        "point of "
        "beginning; ",
        "to the point of beginning. The area is AREA.", [](const Sayings& s, std::size_t i, std::size_t) {
            return "thence " +
                   (s.curve ? "along a curve to the " + side(s) + ", " + tangency(s) + ", with radius " +
                                  s.radius + ", central angle " + s.delta + " and arc " + s.arc + "; chord " +
                                  s.direction + ", " + s.length
                            : "on an " + s.direction + " for " + s.length) +
                   foundCorner(i) + "; ";
        }};
}

Wording gonAndCurving(const std::string&) {
    return {"Boundary of the plot, from boundary mark 1: ", ". AREA in all.",
            [](const Sayings& s, std::size_t i, std::size_t) {
                return std::string(i > 0 ? "; " : "") + "thence " +
                       (s.curve ? "curving to the " + side(s) + ", " + tangency(s) + ", a radius of " +
                                      s.radius + " for an arc of " + s.arc + " (delta " + s.delta +
                                      ", chord " + s.direction + ", " + s.length + ")"
                                : s.direction + ", " + s.length);
            }};
}

Wording chainsAndLinks(const std::string&) {
    return {"Beginning at a heap of stones on the moor, ", " to the place of beginning, containing AREA.",
            [](const Sayings& s, std::size_t i, std::size_t) {
                return std::string(i > 0 ? ", " : "") + "thence " +
                       (s.curve ? "by a " + tangency(s) + " curve to the " + side(s) + " with a radius of " +
                                      s.radius + " through an angle of " + s.delta + ", an arc of " + s.arc +
                                      ", its chord being " + s.direction + " " + s.length
                                : s.direction + " " + s.length + " to a stone");
            }};
}

Wording everythingSpelled(const std::string&) {
    return {"BEGINNING at an iron rod; ", " to the PLACE OF BEGINNING and containing AREA of land.",
            [](const Sayings& s, std::size_t i, std::size_t) {
                return "thence " + (s.curve ? fullCurve(s) : s.direction + ", a distance of " + s.length) +
                       foundCorner(i == 2 ? 0 : i) + "; ";
            }};
}

Wording dashesAndThen(const std::string&) {
    return {"Beginning at a nail and running ", " to the point of beginning; containing AREA.",
            [](const Sayings& s, std::size_t i, std::size_t) {
                return std::string(i > 0 ? ", then " : "") +
                       (s.curve ? "along a " + tangency(s) + " curve to the " + side(s) + ", radius " +
                                      s.radius + ", delta " + s.delta + ", arc " + s.arc + ", chord " +
                                      s.direction + " " + s.length
                                : s.direction + " " + s.length);
            }};
}

Wording saidCurves(const std::string&) {
    return {
        "Commencing at the centre of Dome Terrace; thence South 5°00'00\" West, 61.50 feet to a "
        "nail, the "
        "POINT OF BEGINNING",
        " to the point of beginning. Contains AREA, more or less.",
        [](const Sayings& s, std::size_t, std::size_t) {
            if (!s.curve) return "; thence " + s.direction + " " + s.length;
            const std::string concave = rose(s.startAzimuth + (s.right ? 90 : -90));
            const std::string radial = s.tangent ? ""
                                                 : ", to which beginning a radial line bears " +
                                                       inFull(signsOf)(s.startAzimuth + (s.right ? -90 : 90));
            return " to the beginning of a " + tangency(s) + " curve, concave " + concave +
                   "erly, having a radius of " + s.radius + radial + "; thence along said curve, to the " +
                   side(s) + ", through a central angle of " + s.delta + ", an arc distance of " + s.arc;
        }};
}

Wording chainOfCommas(const std::string&) {
    return {"Begin at a stone, ", ", back to the stone. AREA.",
            [](const Sayings& s, std::size_t i, std::size_t) {
                return std::string(i > 0 ? ", " : "") +
                       (s.curve ? "along a " + tangency(s) + " curve to the " + side(s) + " with a " +
                                      s.radius + " radius, " + s.arc + " along the arc, central angle " +
                                      s.delta + ", chord " + s.direction + " " + s.length
                                : s.direction + ", " + s.length + " along the ditch");
            }};
}

}  // namespace

Style styleOf(int wording) {
    // As a word processor writes them.
    const Writer curly = [](double a) { return marked(a, "º ", "\u2019 ", "\u201D", false); };
    const Writer dashes = [](double a) { return marked(a, "-", "-", "", true); };
    const std::array<Style, wordings> styles{
        {{"m", lengthIn(" metres"), signsOf, byLetters(signsOf)},
         {"ft", lengthIn(" feet"), signsOf, inFull(signsOf)},
         {"ft", lengthIn(" feet"), curly, byLetters(curly)},
         {"m", lengthIn(" m", 3), signsOf, byLetters(signsOf)},
         {"ft", lengthIn("'"), signsOf, byLetters(signsOf, "")},
         {"m", lengthIn(" metres"), signsOf, withWord("azimuth of ", signsOf)},
         {"m", lengthIn(" m", 3), gonOf, withWord("azimuth ", gonOf)},
         {"chain", chainsOf, wordsOfAngle, inFull(wordsOfAngle)},
         {"ft", spelledFeet, spelledAngle, inFull(spelledAngle)},
         {"ft", lengthIn(" ft."), signsOf, byLetters(dashes)},
         {"ft", lengthIn(" feet"), signsOf, inFull(signsOf)},
         {"m", lengthIn(" m"), signsOf, byLetters(signsOf)}}};
    return styles.at(static_cast<std::size_t>(wording));
}

Wording wordingOf(int wording, std::size_t n) {
    const std::string list = "the following " + inWords(static_cast<long>(n)) + " (" + std::to_string(n) +
                             ") courses and distances: ";
    constexpr std::array all{&plainCourses,      &deedOfASection, &bracketedList, &numberedLines,
                             &compact,           &azimuths,       &gonAndCurving, &chainsAndLinks,
                             &everythingSpelled, &dashesAndThen,  &saidCurves,    &chainOfCommas};
    static_assert(all.size() == wordings);
    return all.at(static_cast<std::size_t>(wording))(list);
}

}  // namespace erdwerk::parcel
