import type { FieldTypeName } from '../model/kind-field.ts';
import type { About } from '../model/page-label.ts';

/**
 * The properties of schema.org that fields of a kind can stand for, by what its pages are about: those that its type of thing has
 * at schema.org, with the types of field whose values it takes. The first one of a type is proposed.
 */
export const PROPERTIES: Readonly<Record<About, Readonly<Record<string, readonly FieldTypeName[]>>>> = {
  page: { author: ['pages', 'text'], dateModified: ['day'], image: ['file'], about: ['text', 'pages'] },
  person: {
    jobTitle: ['text'],
    telephone: ['telephone'],
    email: ['mail'],
    url: ['link'],
    address: ['address'],
    image: ['file'],
    birthDate: ['day'],
    worksFor: ['pages'],
    knowsAbout: ['text', 'longText'],
    workLocation: ['place', 'pages'],
  },
  place: {
    telephone: ['telephone'],
    address: ['address'],
    geo: ['place'],
    url: ['link'],
    image: ['file'],
    openingHours: ['text'],
    maximumAttendeeCapacity: ['number'],
    isAccessibleForFree: ['yesNo'],
  },
  course: {
    hasCourseInstance: ['period', 'day', 'moment', 'repeats'],
    offers: ['money'],
    instructor: ['pages'],
    courseCode: ['text'],
    coursePrerequisites: ['text', 'longText'],
    provider: ['pages'],
    image: ['file'],
    educationalLevel: ['choice', 'text'],
    isAccessibleForFree: ['yesNo'],
  },
  event: {
    startDate: ['period', 'day', 'moment'],
    eventSchedule: ['repeats'],
    offers: ['money'],
    location: ['address', 'pages', 'place', 'text'],
    organizer: ['pages'],
    performer: ['pages', 'text'],
    image: ['file'],
    url: ['link'],
    maximumAttendeeCapacity: ['number'],
    isAccessibleForFree: ['yesNo'],
  },
  article: {
    author: ['pages', 'text'],
    datePublished: ['day', 'moment'],
    image: ['file'],
    articleSection: ['choice', 'text'],
    abstract: ['longText'],
  },
  organisation: {
    telephone: ['telephone'],
    email: ['mail'],
    address: ['address'],
    url: ['link'],
    logo: ['file'],
    location: ['place'],
    foundingDate: ['day'],
    member: ['pages'],
    numberOfEmployees: ['number'],
  },
};

/** The properties that a field of that type can stand for, the likeliest first. */
export const propertiesFor = (about: About, type: FieldTypeName): string[] =>
  Object.entries(PROPERTIES[about]).flatMap(([property, types]) => (types.includes(type) ? [property] : []));
