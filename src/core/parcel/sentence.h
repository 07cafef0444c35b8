#pragma once
// A sentence of a description: text, and fields in braces.

#include <optional>
#include <string>
#include <vector>

#include "core/base/display.h"
#include "core/base/result.h"

namespace erdwerk::parcel {

/// A field as it is asked for.
struct SentenceField {
    std::string name;
    std::optional<int> decimals;
    std::optional<LengthUnit> unit;
    bool zeros = false;
    bool words = false;
};

struct SentencePiece {
    std::string text;
    std::optional<SentenceField> field;  ///< else text
};

/// BadInput for a brace without its other, and for what stands behind a colon and is nothing.
Result<std::vector<SentencePiece>> piecesOf(const std::string& sentence);
/// The pieces of a sentence that was found valid.
std::vector<SentencePiece> validPieces(const std::string& sentence);

}  // namespace erdwerk::parcel
