import { reduceTo } from '@scenograph/core/raster/resample';
import { estimateAreas } from '@scenograph/core/stage/estimate-areas';
import { readSceneFile, type ReadScene } from '@scenograph/core/stage/scene-file';
import { surveySchema } from '@scenograph/core/stage/survey';
import { decodePicture, takePicture } from './read-picture';

/** A scene's side-file, its print areas finished by what the picture shows. Throws a sentence that names the file. */
export async function readScene(name: string, json: string, picture: Buffer): Promise<ReadScene> {
  const read = readSceneFile(json, name);
  const { working } = await takePicture('its picture', picture);
  const pixels = await decodePicture(working?.bytes ?? picture);
  if (pixels.width !== read.survey.width || pixels.height !== read.survey.height)
    throw new Error(
      `"${name}" was surveyed at ${read.survey.width} x ${read.survey.height} pixels; its picture has ${pixels.width} x ${pixels.height}.`,
    );
  const survey = read.survey.areas.length
    ? { ...read.survey, areas: estimateAreas(read.survey, read.untold, reduceTo(pixels, 1000)) }
    : read.survey;
  const { error } = surveySchema.validate(survey, { convert: false });
  if (error) throw new Error(`"${name}": ${error.message}.`);
  return { ...read, survey };
}
