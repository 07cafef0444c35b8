#include "core/format/raster_file.h"
#include "core/base/display.h"

#include <gdal_priv.h>

#include <algorithm>
#include <cmath>
#include <filesystem>
#include <memory>

#include "core/format/output.h"

namespace erdwerk::format {

namespace {

struct Close {
    void operator()(GDALDataset* set) const { GDALClose(set); }
};
using Dataset = std::unique_ptr<GDALDataset, Close>;

/// GDAL's last complaint in one line.
std::string gdalReason() {
    std::string text = CPLGetLastErrorMsg();
    std::replace(text.begin(), text.end(), '\n', ' ');
    return text.empty() ? "cannot be read" : text;
}

struct Quiet {
    Quiet() {
        GDALAllRegister();
        CPLPushErrorHandler(CPLQuietErrorHandler);
        CPLErrorReset();
    }
    Quiet(const Quiet&) = delete;
    Quiet& operator=(const Quiet&) = delete;
    ~Quiet() { CPLPopErrorHandler(); }
};

/// No ground in any unit of length is as high.
constexpr double greatestHeight = 1e6;

}  // namespace

Result<survey::Raster> readRaster(const std::string& path, const Context& context) {
    const Quiet quiet;
    if (!std::filesystem::exists(path)) return fail(ErrorCode::Io, "No such file or directory", path);
    const Dataset set(GDALDataset::Open(path.c_str(), GDAL_OF_RASTER | GDAL_OF_READONLY));
    if (!set) return badInput("is not a raster that can be read: " + gdalReason(), path, 1);
    if (set->GetRasterCount() != 1)
        return badInput(
            "has " + std::to_string(set->GetRasterCount()) + " bands; a raster of heights has one", path, 1);
    survey::Raster out;
    out.columns = static_cast<std::size_t>(set->GetRasterXSize());
    out.rows = static_cast<std::size_t>(set->GetRasterYSize());
    if (out.columns * out.rows > 400'000'000)
        return fail(ErrorCode::Unsupported, "more than 400 million cells; cut it into parts first", path, 1);
    if (set->GetGeoTransform(out.transform.data()) != CE_None)
        return badInput("does not say where it lies (no geotransform)", path, 1);
    const double det = out.transform[1] * out.transform[5] - out.transform[2] * out.transform[4];
    if (!std::isfinite(det) || det == 0) return badInput("its cells have no area", path, 1);
    GDALRasterBand* band = set->GetRasterBand(1);
    int hasNoData = 0;
    const double noData = band->GetNoDataValue(&hasNoData);
    // A band of 32-bit values compares with the no-data value as rounded to 32 bits.
    const bool single = band->GetRasterDataType() == GDT_Float32;
    const auto absent = [&](double v) {
        if (!std::isfinite(v)) return true;
        if (hasNoData == 0) return false;
        return single ? static_cast<float>(v) == static_cast<float>(noData) : v == noData;
    };
    int hasScale = 0;
    const double scale = band->GetScale(&hasScale);
    const double offset = band->GetOffset();
    out.heights.resize(out.columns * out.rows);
    out.present.assign(out.columns * out.rows, false);
    for (std::size_t r = 0; r < out.rows; ++r) {
        if (context.isCancelled()) return cancelled();
        double* row = out.heights.data() + r * out.columns;
        if (band->RasterIO(GF_Read, 0, static_cast<int>(r), set->GetRasterXSize(), 1, row,
                           set->GetRasterXSize(), 1, GDT_Float64, 0, 0, nullptr) != CE_None)
            return badInput("row " + std::to_string(r + 1) + " cannot be read: " + gdalReason(), path,
                            static_cast<long>(r + 1));
        for (std::size_t c = 0; c < out.columns; ++c) {
            if (absent(row[c])) {
                row[c] = 0;
                continue;
            }
            out.present[r * out.columns + c] = true;
            if (hasScale != 0) row[c] = row[c] * scale + offset;
            if (std::abs(row[c]) > greatestHeight)
                return badInput("row " + std::to_string(r + 1) + " holds a height of " + formatExact(row[c]) +
                                    ": the file is damaged, or does not say which value means no height",
                                path, static_cast<long>(r + 1));
        }
        context.report(static_cast<double>(r + 1) / static_cast<double>(out.rows));
    }
    if (std::find(out.present.begin(), out.present.end(), true) == out.present.end())
        return badInput("no cell has a height", path, 1);
    return out;
}

Result<void> writeRaster(const std::string& path, const survey::Raster& raster, const RasterOutput& options) {
    const Quiet quiet;
    return replaceFile(path, [&](const std::string& temporary) -> Result<void> {
        GDALDriver* driver = GetGDALDriverManager()->GetDriverByName("GTiff");
        if (driver == nullptr) return fail(ErrorCode::Unsupported, "GDAL's GeoTIFF driver is missing", path);
        char** settings = CSLSetNameValue(nullptr, "BIGTIFF", "IF_SAFER");
        Dataset set(driver->Create(temporary.c_str(), static_cast<int>(raster.columns),
                                   static_cast<int>(raster.rows), 1,
                                   options.doublePrecision ? GDT_Float64 : GDT_Float32, settings));
        CSLDestroy(settings);
        if (!set) return fail(ErrorCode::Io, "cannot be written: " + plainReason(gdalReason()), path);
        auto transform = raster.transform;
        GDALRasterBand* band = set->GetRasterBand(1);
        if (set->SetGeoTransform(transform.data()) != CE_None ||
            band->SetNoDataValue(options.noData) != CE_None)
            return fail(ErrorCode::Io, "cannot be written: " + plainReason(gdalReason()), path);
        std::vector<double> row(raster.columns);
        for (std::size_t r = 0; r < raster.rows; ++r) {
            for (std::size_t c = 0; c < raster.columns; ++c) {
                const std::size_t at = r * raster.columns + c;
                row[c] = raster.present[at] ? raster.heights[at] : options.noData;
            }
            if (band->RasterIO(GF_Write, 0, static_cast<int>(r), static_cast<int>(raster.columns), 1,
                               row.data(), static_cast<int>(raster.columns), 1, GDT_Float64, 0, 0,
                               nullptr) != CE_None)
                return fail(ErrorCode::Io, "cannot be written: " + plainReason(gdalReason()), path);
        }
        CPLErrorReset();
        set.reset();
        if (CPLGetLastErrorType() >= CE_Failure)
            return fail(ErrorCode::Io, "cannot be written: " + plainReason(gdalReason()), path);
        return {};
    });
}

Result<objects::Picture> readPicture(const std::string& path, const Context& context) {
    const Quiet quiet;
    const Dataset set(GDALDataset::Open(path.c_str(), GDAL_OF_RASTER | GDAL_OF_READONLY));
    if (!set) return badInput("is not a picture that can be read: " + gdalReason(), path, 1);
    if (set->GetRasterCount() == 0) return badInput("has no bands", path, 1);
    objects::Picture out;
    if (set->GetGeoTransform(out.transform.data()) != CE_None)
        return badInput("does not say where it lies (no world file, no geotransform)", path, 1);
    const int width = set->GetRasterXSize();
    const int height = set->GetRasterYSize();
    const double reduce = std::max(1.0, std::max(width, height) / 4096.0);
    const int columns = std::max(1, static_cast<int>(width / reduce));
    const int rows = std::max(1, static_cast<int>(height / reduce));
    out.columns = static_cast<std::size_t>(columns);
    out.rows = static_cast<std::size_t>(rows);
    for (const std::size_t k : {1U, 4U}) out.transform[k] *= static_cast<double>(width) / columns;
    for (const std::size_t k : {2U, 5U}) out.transform[k] *= static_cast<double>(height) / rows;
    out.rgb.resize(3 * out.columns * out.rows);
    GDALRasterIOExtraArg asked;
    INIT_RASTERIO_EXTRA_ARG(asked);
    asked.pfnProgress = [](double, const char*, void* data) {
        return static_cast<const Context*>(data)->isCancelled() ? FALSE : TRUE;
    };
    asked.pProgressData = const_cast<Context*>(&context);
    for (int k = 0; k < 3; ++k) {
        GDALRasterBand* band = set->GetRasterBand(set->GetRasterCount() >= 3 ? k + 1 : 1);
        if (band->RasterIO(GF_Read, 0, 0, width, height, out.rgb.data() + k, columns, rows, GDT_Byte, 3,
                           static_cast<GSpacing>(3) * columns, &asked) != CE_None)
            return context.isCancelled()
                       ? Result<objects::Picture>(cancelled())
                       : Result<objects::Picture>(badInput("cannot be read: " + gdalReason(), path, 1));
        context.report((k + 1) / 3.0);
    }
    return out;
}

Result<bool> holdsHeights(const std::string& path) {
    const Quiet quiet;
    const Dataset set(GDALDataset::Open(path.c_str(), GDAL_OF_RASTER | GDAL_OF_READONLY));
    if (!set) return badInput("is not a raster that can be read: " + gdalReason(), path, 1);
    return set->GetRasterCount() == 1 && set->GetRasterBand(1)->GetRasterDataType() != GDT_Byte;
}

}  // namespace erdwerk::format
